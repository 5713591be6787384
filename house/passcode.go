package house

import (
	"bytes"
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	_ "embed"
	"encoding/base64"
	"fmt"
	"math/big"
	"sort"
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/crypto/argon2"

	"upbeatladle/document"
)

// Work is what one guess of a passcode costs: argon2id with so much memory [KiB] and so many passes, in one lane.
type Work struct{ Memory, Passes uint32 }

// Costly is the work of a kitchen's passcode (OWASP's password storage advice, from memory).
var Costly = Work{Memory: 19 << 10, Passes: 2}

const (
	hashLanes = 1
	hashSize  = 32
	saltSize  = 16
)

// Length of a passcode [letters] (NIST SP 800-63B: at least 8; the upper end bounds the work).
const (
	ShortestPasscode = 8
	longestPasscode  = 128
)

// words are those of a passcode that the program makes.
//
//go:embed words.txt
var words string

// common are passcodes of kitchens that are guessed first; commonMarks those of everybody, by their marks.
//
//go:embed common.txt
var common string

//go:generate go run ./common
//go:embed common.bin
var commonMarks []byte

// markSize is how many bytes of its hash a common passcode is known by.
const markSize = 6

// Mark is the beginning of a passcode's hash.
func Mark(passcode string) []byte {
	sum := sha256.Sum256([]byte(passcode))
	return sum[:markSize]
}

// isCommon tells whether a passcode is one of the commonest of all.
func isCommon(plain string) bool {
	mark := Mark(plain)
	at := sort.Search(len(commonMarks)/markSize, func(i int) bool { return bytes.Compare(commonMarks[i*markSize:(i+1)*markSize], mark) >= 0 })
	return at < len(commonMarks)/markSize && bytes.Equal(commonMarks[at*markSize:(at+1)*markSize], mark)
}

// fourWords is a passcode that is said across a kitchen and typed on a phone: 4 of some 280 words,
// 32 bits, which the limit on attempts makes enough at the door.
func fourWords() string {
	all := strings.Fields(words)
	out := make([]string, 4)
	for i := range out {
		n, _ := rand.Int(rand.Reader, big.NewInt(int64(len(all)))) // never fails
		out[i] = all[n.Int64()]
	}
	return strings.Join(out, "-")
}

// fit tells what is wrong with a passcode that somebody made up for a kitchen of a name.
func fit(passcode, kitchen string) error {
	n := utf8.RuneCountInString(passcode)
	plain := strings.ToLower(strings.TrimSpace(passcode))
	switch {
	case !utf8.ValidString(passcode) || n > longestPasscode:
		return document.Refusal("/next", "too_long", "A passcode has at most %d letters.", longestPasscode)
	case n < ShortestPasscode:
		return document.Refusal("/next", "too_short", "A passcode has at least %d letters, figures or signs. Four words are easy to say across a kitchen.", ShortestPasscode)
	case easy(plain):
		return document.Refusal("/next", "easy", "That one is guessed first. Take a few words that do not belong together.")
	case namesakes(plain, kitchen):
		return document.Refusal("/next", "easy", "That is this kitchen's own name, which is guessed first. Take a few words that do not belong together.")
	}
	return nil
}

// shortestName is from how many letters on a name is looked for in a passcode (modelling choice).
const shortestName = 4

// namesakes tells whether a passcode is a kitchen's name, with a figure more or a word less.
func namesakes(plain, kitchen string) bool {
	letters := func(s string) string {
		return strings.Map(func(r rune) rune {
			if unicode.IsLetter(r) {
				return r
			}
			return -1
		}, strings.ToLower(s))
	}
	code, name := letters(plain), letters(kitchen)
	long := func(s string) bool { return utf8.RuneCountInString(s) >= shortestName }
	return long(name) && long(code) && (strings.Contains(code, name) || strings.Contains(name, code))
}

// easy tells whether a passcode is among those that are guessed first: common ones, this
// program's name, one sign over and over, or a run along the alphabet, the figures or the keys.
func easy(plain string) bool {
	bare := strings.Map(func(r rune) rune {
		if strings.ContainsRune(" -_.", r) {
			return -1
		}
		return r
	}, plain)
	if isCommon(plain) || isCommon(bare) {
		return true
	}
	for _, c := range strings.Fields(common) {
		if plain == c || bare == c {
			return true
		}
	}
	for _, run := range []string{"abcdefghijklmnopqrstuvwxyz", "01234567890123456789", "qwertyuiopasdfghjklzxcvbnm", "qwertzuiopasdfghjklyxcvbnm", "azertyuiopqsdfghjklmwxcvbn"} {
		if strings.Contains(run, bare) || strings.Contains(reversed(run), bare) {
			return true
		}
	}
	different := map[rune]bool{}
	for _, r := range bare {
		different[r] = true
	}
	return len(different) < 3 || strings.Contains(bare, "upbeatladle")
}

func reversed(s string) string {
	r := []rune(s)
	for i, j := 0, len(r)-1; i < j; i, j = i+1, j-1 {
		r[i], r[j] = r[j], r[i]
	}
	return string(r)
}

// hashed is what is kept of a passcode, in the usual text form of argon2id.
func (w Work) hashed(passcode string) string {
	salt := make([]byte, saltSize)
	_, _ = rand.Read(salt) // never fails
	key := argon2.IDKey([]byte(passcode), salt, w.Passes, w.Memory, hashLanes, hashSize)
	b64 := base64.RawStdEncoding
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=%d$%s$%s", argon2.Version, w.Memory, w.Passes, hashLanes, b64.EncodeToString(salt), b64.EncodeToString(key))
}

// matches compares a passcode with what is kept. Without one nothing matches.
func matches(kept, passcode string) bool {
	part := strings.Split(kept, "$")
	if len(part) != 6 || len(passcode) > 4*longestPasscode {
		return false
	}
	var version int
	var memory, passes uint32
	var lanes uint8
	_, err := fmt.Sscanf(part[2], "v=%d", &version)
	_, err2 := fmt.Sscanf(part[3], "m=%d,t=%d,p=%d", &memory, &passes, &lanes)
	salt, err3 := base64.RawStdEncoding.DecodeString(part[4])
	key, err4 := base64.RawStdEncoding.DecodeString(part[5])
	if err != nil || err2 != nil || err3 != nil || err4 != nil || part[1] != "argon2id" || version != argon2.Version || passes < 1 || lanes < 1 || len(key) < hashSize {
		return false
	}
	return subtle.ConstantTimeCompare(key, argon2.IDKey([]byte(passcode), salt, passes, memory, lanes, uint32(len(key)))) == 1
}
