package main

import (
	"bufio"
	"context"
	"fmt"
	"os"
	"strings"
	"time"

	"github.com/chromedp/chromedp"

	"upbeatladle/e2e/stage"
)

// lines: size WxH | goto /path | js EXPR | click CSS | shot FILE | key X
func main() {
	dir, _ := os.MkdirTemp("", "zz")
	defer os.RemoveAll(dir)
	ctx := context.Background()
	k, err := stage.Open(ctx, dir, time.Now)
	must(err)
	defer k.Close()
	b, err := stage.OpenBrowser(ctx, dir)
	must(err)
	defer b.Close()
	var p *stage.Page
	sc := bufio.NewScanner(os.Stdin)
	for sc.Scan() {
		cmd, arg, _ := strings.Cut(strings.TrimSpace(sc.Text()), " ")
		switch cmd {
		case "size":
			var w, h int64
			fmt.Sscanf(arg, "%dx%d", &w, &h)
			p, err = b.Page(w, h)
			must(err)
		case "goto":
			must(p.Do(chromedp.Navigate(k.URL + arg)))
		case "js":
			must(p.Wait(arg))
		case "click":
			must(p.Click(arg))
		case "shot":
			must(p.Shot(arg))
		case "say":
			v, err := stage.Ask[string](p, arg)
			fmt.Println(v, err)
		}
	}
}
func must(err error) {
	if err != nil {
		fmt.Println(err)
		os.Exit(1)
	}
}
