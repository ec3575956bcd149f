// Package pattern holds regular expressions that first look for what every match must have in it.
//
// A reader tries some hundred patterns on a line, and most of them speak of words that the line does not have.
// Looking for these words is ten times faster than trying the pattern at every letter.
package pattern

import (
	"regexp"
	"sync"
)

// Pattern is a regular expression with the words of which one is in whatever it matches. It finds exactly what
// the expression alone finds. It is made when it is first tried: a program has hundreds, and may need none.
type Pattern struct {
	expression string
	once       sync.Once
	needs      []need
	re         func() *regexp.Regexp
}

// Must is a pattern of a regular expression in the syntax of package regexp. Where that is malformed, its first use
// panics; [Broken] finds it.
func Must(expression string) *Pattern {
	p := &Pattern{expression: expression,
		re: sync.OnceValue(func() *regexp.Regexp { return regexp.MustCompile(expression) })}
	made.Lock()
	defer made.Unlock()
	made.all = append(made.all, p)
	return p
}

// made are the patterns of a program.
var made struct {
	sync.Mutex
	all []*Pattern
}

// Broken are the expressions that are malformed, of all patterns of a program.
func Broken() (list []string) {
	made.Lock()
	defer made.Unlock()
	for _, p := range made.all {
		if _, err := regexp.Compile(p.expression); err != nil {
			list = append(list, err.Error())
		}
	}
	return list
}

// String is the expression as it was written.
func (p *Pattern) String() string { return p.expression }

// MatchString says whether it matches somewhere in a text.
func (p *Pattern) MatchString(text string) bool { return p.May(text) && p.re().MatchString(text) }

// FindString is the first match; "": there is none.
func (p *Pattern) FindString(text string) string {
	if !p.May(text) {
		return ""
	}
	return p.re().FindString(text)
}

// FindStringIndex is from where to where the first match is, in bytes; nil: there is none.
func (p *Pattern) FindStringIndex(text string) []int {
	if !p.May(text) {
		return nil
	}
	return p.re().FindStringIndex(text)
}

// FindStringSubmatch is the first match and its groups; nil: there is none.
func (p *Pattern) FindStringSubmatch(text string) []string {
	if !p.May(text) {
		return nil
	}
	return p.re().FindStringSubmatch(text)
}

// FindStringSubmatchIndex is where the first match and its groups are, in bytes; nil: there is none.
func (p *Pattern) FindStringSubmatchIndex(text string) []int {
	if !p.May(text) {
		return nil
	}
	return p.re().FindStringSubmatchIndex(text)
}

// FindAllString is all matches, at most n where n is not negative.
func (p *Pattern) FindAllString(text string, n int) []string {
	if !p.May(text) {
		return nil
	}
	return p.re().FindAllString(text, n)
}

// FindAllStringIndex is where all matches are, in bytes.
func (p *Pattern) FindAllStringIndex(text string, n int) [][]int {
	if !p.May(text) {
		return nil
	}
	return p.re().FindAllStringIndex(text, n)
}

// FindAllStringSubmatch is all matches and their groups.
func (p *Pattern) FindAllStringSubmatch(text string, n int) [][]string {
	if !p.May(text) {
		return nil
	}
	return p.re().FindAllStringSubmatch(text, n)
}

// FindAllStringSubmatchIndex is where all matches and their groups are, in bytes.
func (p *Pattern) FindAllStringSubmatchIndex(text string, n int) [][]int {
	if !p.May(text) {
		return nil
	}
	return p.re().FindAllStringSubmatchIndex(text, n)
}

// ReplaceAllString puts a text, in which $1 is the first group, in place of all matches.
func (p *Pattern) ReplaceAllString(text, by string) string {
	if !p.May(text) {
		return text
	}
	return p.re().ReplaceAllString(text, by)
}

// ReplaceAllLiteralString puts a text in place of all matches.
func (p *Pattern) ReplaceAllLiteralString(text, by string) string {
	if !p.May(text) {
		return text
	}
	return p.re().ReplaceAllLiteralString(text, by)
}

// ReplaceAllStringFunc puts what is made of each match in its place.
func (p *Pattern) ReplaceAllStringFunc(text string, by func(string) string) string {
	if !p.May(text) {
		return text
	}
	return p.re().ReplaceAllStringFunc(text, by)
}

// Split is what lies between the matches.
func (p *Pattern) Split(text string, n int) []string { return p.re().Split(text, n) }
