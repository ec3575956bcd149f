package movement

import (
	"strings"

	"cuestart/core/pattern"
)

// form is a row of how a movement is made easier or harder: of what is called so, or is for
// that, in those words.
type form struct {
	called *pattern.Pattern // what its name says; nil: anything
	aims   string           // what it is for, one of these; "": anything
	travel bool             // it has to go somewhere
	drop   *pattern.Pattern // what of its name goes
	with   string           // what is put behind it
}

func called(words string) *pattern.Pattern { return pattern.Must(`(?i)\b(?:` + words + `)\b`) }

var (
	oneLeg  = called(`single[- ]legged|single[- ]leg|one[- ]legged|one[- ]leg|one[- ]foot(?:ed)?|1[- ]leg`)
	twoFeet = called(`double[- ]leg|two[- ]footed|two[- ]leg(?:ged)?|two feet|both feet`)
)

// easierForms and harderForms are the ways, the first that fits before others.
var (
	easierForms = []form{
		{called: oneLeg, drop: oneLeg, with: "two feet"},
		{called: called(`hops?|hopping`), with: "two feet"},
		{called: called(`planks?|(?:push|press)[- ]?ups?|bear|crawls?`), with: "on the knees"},
		{aims: "jump landing", with: "low"},
		{travel: true, aims: "pulse rhythm coordination control stability strength range", with: "on the spot"},
		{aims: "pulse rhythm coordination", with: "slower"},
		{aims: "sprint acceleration change reaction", with: "at three quarters"},
		{aims: "stability", with: "holding on"},
		{aims: "range", with: "less range"},
		{aims: "strength hold control", with: "half as deep"},
	}
	harderForms = []form{
		{called: twoFeet, drop: twoFeet, with: "one leg"},
		{aims: "stability", with: "eyes closed"},
		{called: called(`squats?|bridges?|raises?|hinges?|landings?|jumps?`), with: "one leg"},
		{called: called(`planks?|(?:push|press)[- ]?ups?`), with: "one leg up"},
		{aims: "range control", with: "slow, full range"},
		{aims: "pulse rhythm coordination", with: "quick"},
		{aims: "jump landing", with: "repeated"},
		{aims: "strength hold", with: "slow"},
	}
)

// Easier is what the easier form of a movement is called: "Hop and stick, two feet"; "" where
// nothing is known of it.
func Easier(name string) string { return formOf(name, easierForms) }

// Harder is what the harder form of a movement is called; "" where there is none.
func Harder(name string) string { return formOf(name, harderForms) }

func formOf(name string, forms []form) string {
	u, known := Of(name)
	if !known {
		return ""
	}
	for _, f := range forms {
		if f.called != nil && !f.called.MatchString(name) || f.travel && !u.Travels ||
			f.aims != "" && !strings.Contains(" "+f.aims+" ", " "+u.Aim+" ") {
			continue
		}
		if strings.Contains(strings.ToLower(name), f.with) {
			continue // it is done so already
		}
		if f.drop != nil {
			name = strings.Join(strings.Fields(f.drop.ReplaceAllString(name, "")), " ")
		}
		if name = strings.Trim(name, " ,-"); name == "" {
			return ""
		}
		return strings.ToUpper(name[:1]) + name[1:] + ", " + f.with
	}
	return ""
}
