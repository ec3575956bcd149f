package club

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/drill"
)

// Target is what a week should hold of something for every player of a squad.
type Target struct {
	Squad   uint64 `json:"squad,omitempty"`
	Region  string `json:"region,omitempty"`  // of drill.Regions; "": any
	Quality string `json:"quality,omitempty"` // of drill.Qualities; "": any
	Hard    bool   `json:"hard,omitempty"`    // days with work at 80 % and more, in place of a joint and a quality
	Days    int    `json:"days"`              // on how many days
	AtMost  bool   `json:"at_most,omitempty"` // no more than so many, else at least
}

// Words says the target as a coach does: "neck strength on 2 days", "hard days: at most 3".
func (t Target) Words() string {
	sign := "at least"
	if t.AtMost {
		sign = "at most"
	}
	if t.Hard {
		return fmt.Sprintf("hard days: %s %d", sign, t.Days)
	}
	days := drill.Number(t.Days, "days")
	if t.AtMost {
		days += " at most"
	}
	return fmt.Sprintf("%s on %s", strings.TrimSpace(t.Region+" "+t.Quality), days)
}

func (Target) Kind() Kind      { return KindTarget }
func (t Target) Label() string { return t.Words() }

// Unique is what it is about: a squad has one of each.
func (t Target) Unique() string {
	return fmt.Sprintf("%d %s %s %t %t", t.Squad, t.Region, t.Quality, t.Hard, t.AtMost)
}

func (t Target) Validate() error {
	v := problems{}
	v.when(t.Region != "" && !slices.Contains(drill.Regions, t.Region), "region", "pick a joint of the list")
	v.when(t.Quality != "" && !slices.Contains(drill.Qualities, t.Quality), "quality", "pick a quality of the list")
	v.when(!t.Hard && t.Region == "" && t.Quality == "", "region", "say of what: a joint, a quality or both")
	v.when(t.Days < 0 || t.Days > 7 || t.Days == 0 && !t.AtMost, "days", "a week has between 1 and 7 days")
	return v.err()
}
