package account

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"
	"unicode"

	"github.com/alexedwards/argon2id"

	"cuestart/web/shell"
)

// busyAfter is how long somebody waits for their turn.
const busyAfter = 3 * time.Second

// Passwords hashes passwords and compares them, two at once: each takes 64 MB for a moment.
type Passwords struct {
	params *argon2id.Params
	turns  chan struct{}
	nobody func() string // a hash to compare with where there is no account: the time of the answer does not tell
}

// NewPasswords hashes at a cost; nil: as is usual.
func NewPasswords(cost *argon2id.Params) *Passwords {
	if cost == nil {
		cost = argon2id.DefaultParams
	}
	return &Passwords{params: cost, turns: make(chan struct{}, 2), nobody: sync.OnceValue(func() string {
		hash, _ := argon2id.CreateHash("nobody", cost)
		return hash
	})}
}

// turn waits for a turn to hash, and fails where there are too many before.
func (ps *Passwords) turn(ctx context.Context) (done func(), err error) {
	select {
	case ps.turns <- struct{}{}:
		return func() { <-ps.turns }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	case <-time.After(busyAfter):
		return nil, shell.Refusal{Status: http.StatusServiceUnavailable, Heading: "Too many at once",
			Line: "Too many people sign in just now. Try again in a moment."}
	}
}

// hashed is the hash of a password.
func (ps *Passwords) hashed(ctx context.Context, password string) (string, error) {
	done, err := ps.turn(ctx)
	if err != nil {
		return "", err
	}
	defer done()
	return argon2id.CreateHash(password, ps.params)
}

// matches tells whether a password is that of a hash.
func (ps *Passwords) matches(ctx context.Context, password, hash string) (bool, error) {
	done, err := ps.turn(ctx)
	if err != nil {
		return false, err
	}
	defer done()
	right, err := argon2id.ComparePasswordAndHash(password, hash)
	return right && err == nil, nil
}

// passwordProblem says what is wrong with a new password, or "": it is short, common,
// or made of what everybody knows of its owner.
func passwordProblem(password string, known ...string) string {
	if n := len([]rune(password)); n < 12 || n > 200 {
		return "use 12 characters or more, such as four words of your own"
	}
	if common(password) {
		return "this is one of the first that would be tried: use four words of your own"
	}
	plain := letters(password)
	for _, word := range known {
		for _, part := range strings.FieldsFunc(strings.ToLower(word),
			func(r rune) bool { return !unicode.IsLetter(r) }) {
			if len(part) >= 4 && strings.Contains(plain, part) && len(plain)-len(part) < 6 {
				return "leave your name, e-mail and club out of it"
			}
		}
	}
	return ""
}

// tried are what passwords are mostly made of; more than half of one of these is common.
var tried = []string{"password", "passwort", "qwerty", "qwertyuiop", "asdfghjkl", "zxcvbnm", "letmein", "welcome",
	"iloveyou", "princess", "dragon", "monkey", "football", "baseball", "basketball",
	"rugby", "sunshine", "superman", "batman", "master", "shadow", "administrator", "admin", "login", "abc", "abcdef",
	"abcdefghijkl", "trustno", "starwars", "whatever", "freedom", "computer", "michael",
	"liverpool", "chelsea", "arsenal", "changeme", "secret", "coach", "warmup", "cuestart", "kickoff"}

// common tells whether a password is one of those that are tried first.
func common(password string) bool {
	if distinct(password) < 5 || sequence(password) {
		return true
	}
	return slices.ContainsFunc([]string{letters(password), read(password)}, func(plain string) bool {
		return slices.ContainsFunc(tried, func(word string) bool {
			rest := strings.ReplaceAll(plain, word, "")
			return len(rest) < len(plain) && len(rest) < 4
		})
	})
}

// letters are those of a password in lower case; read has figures and marks that stand
// for letters read as these.
func letters(password string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) {
			return unicode.ToLower(r)
		}
		return -1
	}, password)
}

func read(password string) string {
	return letters(strings.NewReplacer("0", "o", "1", "i", "3", "e", "4", "a", "5", "s", "7", "t", "@", "a", "$", "s",
		"!", "i").Replace(password))
}

func distinct(password string) int {
	seen := map[rune]bool{}
	for _, r := range password {
		seen[r] = true
	}
	return len(seen)
}

// sequence tells whether a password mostly counts up or down, or along a keyboard.
func sequence(password string) bool {
	runes := []rune(strings.ToLower(password))
	steps := 0
	for i := 1; i < len(runes); i++ {
		if d := runes[i] - runes[i-1]; d == 1 || d == -1 || d == 0 {
			steps++
		}
	}
	return 3*steps > 2*len(runes)
}
