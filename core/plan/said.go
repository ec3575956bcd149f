package plan

import "slices"

// Said is a line in which a coach wrote a part of the plan, as it was typed, and what it became.
type Said struct {
	Text  string     `json:"text"`
	Parts []SaidPart `json:"parts,omitempty"` // its sentences; none: an empty line
}

// SaidPart is a sentence of a line, or the whole of it.
type SaidPart struct {
	Text  string     `json:"text"`
	Block string     `json:"block,omitempty"` // id of the block that it is of, or heads; "": none
	Is    string     `json:"is,omitempty"`    // what else it became: the name of something fixed, a thing to carry
	Items []SaidItem `json:"items,omitempty"` // its drills there
	Of    string     `json:"of,omitempty"`    // what is said of the block beside its drills, of its first sentence
}

// SaidItem is a drill of a sentence as it was understood.
type SaidItem struct {
	Code string `json:"code"`
	As   string `json:"as"` // in the words that are read as it
}

// mostLetters is how many letters of what was said are kept, mostTyped how many lines.
const mostLetters, mostTyped = 40000, 400

// KeepSaid keeps what was said of a plan, as much of it as is kept.
func (t *Told) KeepSaid(lines []Said) {
	letters := 0
	for i := range lines {
		if letters += len(lines[i].Text); letters > mostLetters || i >= mostTyped {
			lines = lines[:i]
			break
		}
	}
	t.Said = slices.Clip(lines)
}
