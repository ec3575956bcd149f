package board

import (
	"cmp"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"cuestart/planner/boards"
	"cuestart/web/shell"
)

// The tabs that may be open beside the plan, one at a time.
const (
	tabPeople = "people"
	tabTimes  = "times"
	tabDay    = "day"
	tabKit    = "kit"
	tabLists  = "lists"
)

// tab is what belongs to the session and opens beside the plan.
type tab struct {
	press
	Beside string // what is in it, in a word or a number
}

// Tabbed is the address of the board with a tab open; "" is the plan.
func (b *body) Tabbed(name string) string {
	if name == "" {
		return b.To()
	}
	return b.To() + "?" + url.Values{"tab": {name}}.Encode()
}

// tabs are what belongs to the session, with the one that is open: where something was wrong,
// else the one that was asked for, unless a block is open.
func (b *body) tabs(r *shell.Request, board *boards.Board) {
	d := board.Document
	day := ""
	for _, t := range b.Turns {
		if t.On {
			day = strings.ToLower(t.Name)
		}
	}
	b.Tabs = []tab{{press: press{Name: "The plan"}},
		{press{tabPeople, "People", false}, strconv.Itoa(len(d.Players))},
		{press{tabTimes, "Times", false}, number(len(d.Fixed))},
		{press{tabDay, "The day", false}, day},
		{press{tabKit, "Kit", false}, ""},
		{press{tabLists, "Lists", false}, number(len(b.Lists))}}
	asked := cmp.Or(r.Query("tab"), r.Header("X-Tab"))
	if b.Chosen == nil && slices.ContainsFunc(b.Tabs, func(t tab) bool { return t.Value == asked }) {
		b.Tab = asked
	}
	b.Tab = cmp.Or(b.wrongTab(), b.Tab)
	for i := range b.Tabs {
		b.Tabs[i].On = b.Tabs[i].Value == b.Tab
	}
}

// wrongTab is the tab in which something that was sent is wrong; "": none.
func (b *body) wrongTab() string {
	for name, places := range map[string][]string{tabPeople: {"players", "roles"}, tabTimes: {"fixed"},
		tabDay: {"air", "wind", "facing"}, tabKit: {"bring"}} {
		if len(problemsAt(b.Problems, places...)) > 0 {
			return name
		}
	}
	if b.listProblem() != "" {
		return tabLists
	}
	return ""
}

// number is a count, and nothing where there is none.
func number(n int) string {
	if n == 0 {
		return ""
	}
	return strconv.Itoa(n)
}
