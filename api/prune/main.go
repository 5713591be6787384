// Command prune takes out of api.gen.go what nobody uses: types, constants and methods that
// neither the handlers nor the generated server reach. Documents are decoded by package
// document, so most of what the contract describes needs no type here.
package main

import (
	"bytes"
	"fmt"
	"go/ast"
	"go/format"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"strings"
)

const generated = "api.gen.go"

func main() {
	if err := prune("."); err != nil {
		fmt.Fprintln(os.Stderr, "prune:", err)
		os.Exit(1)
	}
}

func prune(dir string) error {
	fset := token.NewFileSet()
	gen, used, err := read(fset, dir)
	if err != nil {
		return err
	}
	reach(gen, used)
	gone := drop(gen, used)
	dropComments(gen, gone)
	dropImports(gen)
	var out bytes.Buffer
	if err := format.Node(&out, fset, gen); err != nil {
		return err
	}
	return os.WriteFile(filepath.Join(dir, generated), out.Bytes(), 0o644)
}

// read parses the package: what was generated, and every name that the rest of it mentions.
func read(fset *token.FileSet, dir string) (gen *ast.File, used map[string]bool, err error) {
	paths, err := filepath.Glob(filepath.Join(dir, "*.go"))
	if err != nil {
		return nil, nil, err
	}
	used = map[string]bool{}
	for _, path := range paths {
		f, err := parser.ParseFile(fset, path, nil, parser.ParseComments)
		if err != nil {
			return nil, nil, err
		}
		if filepath.Base(path) == generated {
			gen = f
			continue
		}
		note(f, used)
	}
	if gen == nil {
		return nil, nil, fmt.Errorf("there is no %s here", generated)
	}
	return gen, used, nil
}

// reach adds what is generated and always stays: functions, methods of types that stay, and what those mention.
func reach(gen *ast.File, used map[string]bool) {
	for grew := true; grew; {
		before := len(used)
		for _, d := range gen.Decls {
			if fn, ok := d.(*ast.FuncDecl); ok {
				if name := receiver(fn); name == "" || used[name] || strings.HasPrefix(name, "Server") {
					used[fn.Name.Name] = true
					note(fn, used)
				}
			}
			each(d, func(s ast.Spec) {
				if stays(s, used) {
					note(s, used)
				}
			})
		}
		grew = len(used) > before
	}
}

// drop takes out what is not used, and says what that was.
func drop(gen *ast.File, used map[string]bool) (gone []ast.Node) {
	var kept []ast.Decl
	for _, d := range gen.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			if name := receiver(d); name != "" && !used[name] {
				gone = append(gone, d)
				continue
			}
		case *ast.GenDecl:
			without, some := unused(d, used)
			gone = append(gone, without...)
			if !some {
				gone = append(gone, d)
				continue
			}
		}
		kept = append(kept, d)
	}
	gen.Decls = kept
	return gone
}

// unused takes out of a declaration what is not used, and tells whether some of it stays; imports do.
// A declaration that goes as a whole is left as it is: its place in the text is still asked for.
func unused(d *ast.GenDecl, used map[string]bool) (gone []ast.Node, some bool) {
	if d.Tok == token.IMPORT {
		return nil, true
	}
	var specs []ast.Spec
	for _, s := range d.Specs {
		if stays(s, used) {
			specs = append(specs, s)
		} else {
			gone = append(gone, s)
		}
	}
	if len(specs) > 0 {
		d.Specs = specs
	}
	return gone, len(specs) > 0
}

// note remembers every name of this package that a piece of code mentions; names of other
// packages stand behind a dot.
func note(n ast.Node, used map[string]bool) {
	ast.Inspect(n, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.SelectorExpr:
			if pkg, ok := n.X.(*ast.Ident); ok && pkg.Name == "api" {
				used[n.Sel.Name] = true
			}
			note(n.X, used)
			return false
		case *ast.Ident:
			used[n.Name] = true
		}
		return true
	})
}

func receiver(fn *ast.FuncDecl) string {
	if fn.Recv == nil || len(fn.Recv.List) == 0 {
		return ""
	}
	t := fn.Recv.List[0].Type
	if star, ok := t.(*ast.StarExpr); ok {
		t = star.X
	}
	if id, ok := t.(*ast.Ident); ok {
		return id.Name
	}
	return ""
}

func each(d ast.Decl, f func(ast.Spec)) {
	if g, ok := d.(*ast.GenDecl); ok && g.Tok != token.IMPORT {
		for _, s := range g.Specs {
			f(s)
		}
	}
}

// stays tells whether a type, or a constant of one, is used.
func stays(s ast.Spec, used map[string]bool) bool {
	switch s := s.(type) {
	case *ast.TypeSpec:
		return used[s.Name.Name] || strings.HasPrefix(s.Name.Name, "Server") || strings.HasSuffix(s.Name.Name, "Params") || s.Name.Name == "GinServerOptions"
	case *ast.ValueSpec:
		for _, n := range s.Names {
			if used[n.Name] {
				return true
			}
		}
	}
	return false
}

// dropComments takes the comments of what is gone along.
func dropComments(f *ast.File, gone []ast.Node) {
	var comments []*ast.CommentGroup
	for _, c := range f.Comments {
		inside := false
		for _, n := range gone {
			inside = inside || c.Pos() >= n.Pos() && c.End() <= n.End()
			switch n := n.(type) {
			case *ast.GenDecl:
				inside = inside || n.Doc == c
			case *ast.FuncDecl:
				inside = inside || n.Doc == c
			case *ast.TypeSpec:
				inside = inside || n.Doc == c || n.Comment == c
			case *ast.ValueSpec:
				inside = inside || n.Doc == c || n.Comment == c
			}
		}
		if !inside {
			comments = append(comments, c)
		}
	}
	f.Comments = comments
}

// dropImports takes out imports that nothing mentions any more.
func dropImports(f *ast.File) {
	mentioned := map[string]bool{}
	ast.Inspect(f, func(n ast.Node) bool {
		if sel, ok := n.(*ast.SelectorExpr); ok {
			if id, ok := sel.X.(*ast.Ident); ok {
				mentioned[id.Name] = true
			}
		}
		return true
	})
	for _, d := range f.Decls {
		g, ok := d.(*ast.GenDecl)
		if !ok || g.Tok != token.IMPORT {
			continue
		}
		var specs []ast.Spec
		for _, s := range g.Specs {
			i := s.(*ast.ImportSpec)
			name := filepath.Base(strings.Trim(i.Path.Value, `"`))
			if i.Name != nil {
				name = i.Name.Name
			}
			if mentioned[name] {
				specs = append(specs, s)
			}
		}
		g.Specs = specs
	}
}
