package plan

import "fmt"

// Problem is one thing wrong with a document: where, and what to do about it.
type Problem struct {
	Where string // such as "start", "margin", "blocks.b3.name"
	What  string // one sentence
}

// Problems is every problem of a document. It is an error; its text is the
// first of them.
type Problems []Problem

func (p Problems) Error() string { return p[0].Where + ": " + p[0].What }

// At is the sentence about a place, or "".
func (p Problems) At(where string) string {
	for _, problem := range p {
		if problem.Where == where {
			return problem.What
		}
	}
	return ""
}

// Add appends a problem at a place.
func (p *Problems) Add(where, what string) { *p = append(*p, Problem{where, what}) }

// Err is the problems as an error, or nil where there are none.
func (p Problems) Err() error {
	if len(p) == 0 {
		return nil
	}
	return p
}

// In is a single problem at a place, as an error.
func In(where, what string, args ...any) error {
	return Problems{{where, fmt.Sprintf(what, args...)}}
}

// AtBlock is the place of a block's field; of the block itself where field is "".
func AtBlock(id, field string) string {
	if field == "" {
		return "blocks." + id
	}
	return "blocks." + id + "." + field
}

// AtItem is the place of drill n of a block.
func AtItem(block string, n int) string {
	return fmt.Sprintf("%s.%d", AtBlock(block, "items"), n)
}

// AtException is the place of the reason why a finding is kept.
func AtException(rule, where string) string { return "keep." + rule + "." + where }
