package log

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/core/week"
	"cuestart/planner"
	"cuestart/planner/learn"
	"cuestart/web/shell"
)

// weekBody is what a week gave and still owes.
type weekBody struct {
	Squad     uint64
	Name      string
	Squads    []shell.IDChoice
	Head      string // "23 to 29 November"
	Monday    string
	Before    string // the Monday before, and after
	After     string
	Sessions  []weekSession
	Player    string // key; "": the squad
	People    []shell.Choice
	Qualities []string
	Rows      []weekRow
	Planes    []planeRow
	Targets   []targetRow
	Fills     []fillRow
	More      int // fills beyond those shown
	Next      string
	Edits     bool
	Problems  plan.Problems
	Regions   []string
	AllQs     []string
	Hard      string
}

// weekSession is a session of the week.
type weekSession struct {
	ID     uint64
	Title  string
	Day    string
	Logged bool
}

// weekRow is a joint of the table.
type weekRow struct {
	Region string
	Cells  []weekCell
}

// weekCell is the minutes of a joint and a quality: of the player, or in the mean of the squad.
type weekCell struct {
	Minutes string
	Share   int // of the most, in hundredths
}

// Step is how dark the cell is, from 0 to 4.
func (c weekCell) Step() int { return (c.Share + 24) / 25 }

type planeRow struct {
	Name    string
	Minutes string
	Share   int
}

// targetRow is a target, and who misses it.
type targetRow struct {
	ID, Edition uint64
	Words       string
	Met         bool
	Says        string
}

// fillRow is a drill that would give something that is owed.
type fillRow struct {
	Code, Name, Gives, Dose string
}

// fillsShown is how many drills are offered to fill a gap.
const fillsShown = 8

// To is the address of the page, for a squad, a player and a week.
func (b *weekBody) To(player string) string {
	return fmt.Sprintf("/week?squad=%d&day=%s&player=%s", b.Squad, b.Monday, player)
}

// At is the address of another week.
func (b *weekBody) At(day string) string {
	return fmt.Sprintf("/week?squad=%d&day=%s&player=%s", b.Squad, day, b.Player)
}

// Week is what a week gave a squad.
func (in Room) Week(r *shell.Request) (shell.Answer, error) { return in.weekPage(r, nil) }

// dayOf is the day that is asked for; today where it is none.
func dayOf(r *shell.Request, asked string) time.Time {
	if day, err := time.Parse(time.DateOnly, asked); err == nil {
		return day
	}
	return r.Now()
}

func (in Room) weekPage(r *shell.Request, wrong plan.Problems) (*shell.Page, error) {
	squadID, day := r.QueryID("squad"), r.Query("day")
	if r.Form.Has("squad") {
		squadID, day = r.Form.ID("squad"), r.Form.Raw("day")
	}
	w, err := in.Learn.Week(r.Context(), r.Club(), squadID, dayOf(r, day))
	if err != nil {
		return nil, err
	}
	teams, err := in.Keep.Teams(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	b := &weekBody{Squad: w.Squad.ID, Name: w.Squad.Name, Monday: w.Monday.Format(time.DateOnly),
		Before: w.Monday.AddDate(0, 0, -7).Format(time.DateOnly),
		After:  w.Monday.AddDate(0, 0, 7).Format(time.DateOnly),
		Head:   w.Monday.Format("2 Jan") + " to " + w.Monday.AddDate(0, 0, 6).Format("2 January 2006"),
		Edits:  r.Coach(), Problems: wrong, Regions: drill.Regions, AllQs: drill.Qualities}
	for _, t := range teams {
		b.Squads = append(b.Squads, shell.IDChoice{ID: t.ID, Label: t.Name})
	}
	for _, s := range w.Sessions {
		b.Sessions = append(b.Sessions, weekSession{ID: s.ID, Title: s.Title, Day: s.Day.Format("Mon 2 Jan"),
			Logged: s.Logged})
	}
	for _, weekly := range w.People {
		if b.People = append(b.People,
			shell.Choice{Value: weekly.Key, Label: weekly.Name}); weekly.Key == r.Query("player") {
			b.Player = weekly.Key
		}
	}
	b.table(w)
	b.targets(w)
	if w.Next != nil {
		b.Next = w.Next.Title + ", " + w.Next.Start.Format("Mon 2 Jan")
	}
	return &shell.Page{Screens: screens, Name: "week", Title: "Week", Nav: "week", Body: b}, nil
}

// table fills in the minutes by joint and quality, and by plane.
func (b *weekBody) table(w *learn.Week) {
	sum, planes, hard := map[week.Cell]float64{}, map[string]float64{}, 0
	people := 0.0
	for _, weekly := range w.People {
		if b.Player != "" && weekly.Key != b.Player {
			continue
		}
		people++
		g := w.Given[weekly.Key]
		for cell, seconds := range g.Seconds {
			sum[cell] += seconds
		}
		for plane, seconds := range g.Planes {
			planes[plane] += seconds
		}
		hard = max(hard, g.Hard)
	}
	most := 0.0
	for cell := range sum {
		sum[cell] /= max(1, people) * 60
		most = max(most, sum[cell])
	}
	for _, quality := range drill.Qualities {
		if slices.ContainsFunc(drill.Regions,
			func(region string) bool { return sum[week.Cell{Region: region, Quality: quality}] > 0 }) {
			b.Qualities = append(b.Qualities, quality)
		}
	}
	for _, region := range drill.Regions {
		row := weekRow{Region: region}
		for _, quality := range b.Qualities {
			minutes := sum[week.Cell{Region: region, Quality: quality}]
			row.Cells = append(row.Cells, weekCell{minutesText(minutes), portion(minutes, most)})
		}
		b.Rows = append(b.Rows, row)
	}
	whole := 0.0
	for _, seconds := range planes {
		whole = max(whole, seconds)
	}
	for _, plane := range drill.Planes {
		b.Planes = append(b.Planes, planeRow{plane, minutesText(planes[plane] / max(1, people) / 60),
			portion(planes[plane], whole)})
	}
	b.Hard = drill.Number(hard, "hard days")
}

// minutesText writes minutes; nothing for none.
func minutesText(minutes float64) string {
	switch {
	case minutes < 0.05:
		return ""
	case minutes < 9.95:
		return strconv.FormatFloat(minutes, 'f', 1, 64)
	}
	return strconv.FormatFloat(minutes, 'f', 0, 64)
}

// targets fills in who misses what, and what would give it.
func (b *weekBody) targets(w *learn.Week) {
	name := map[string]string{}
	for _, weekly := range w.People {
		name[weekly.Key] = weekly.Name
	}
	for _, t := range w.Targets {
		row := targetRow{ID: t.ID, Edition: uint64(t.Edition), Words: say.Capital(t.Is.Words()), Met: true}
		var who []string
		for _, o := range w.Owed {
			if o.Target == t.Is && (b.Player == "" || b.Player == o.Player) {
				who = append(who, fmt.Sprintf("%s (%d of %d)", name[o.Player], o.Has, o.Days))
			}
		}
		if row.Met = len(who) == 0; !row.Met {
			const shown = 4
			row.Says = strings.Join(who[:min(shown, len(who))], ", ")
			if len(who) > shown {
				row.Says = fmt.Sprintf("%d of %d players do not have it yet, such as %s", len(who), len(w.People),
					row.Says)
			}
		}
		b.Targets = append(b.Targets, row)
	}
	for i := range w.Fills {
		k := &w.Fills[i]
		if i >= fillsShown {
			b.More++
			continue
		}
		var gives []string
		for _, o := range w.Owed {
			if words := strings.TrimSpace(o.Region + " " + o.Quality); week.Gives(o, k) &&
				!slices.Contains(gives, words) {
				gives = append(gives, words)
			}
		}
		b.Fills = append(b.Fills, fillRow{Code: k.Code, Name: k.Name, Gives: strings.Join(gives, ", "),
			Dose: k.Words(k.Range.Target)})
	}
}

// weekAgain is the page of a form that was sent.
func weekAgain(r *shell.Request) string {
	return fmt.Sprintf("/week?squad=%d&day=%s", r.Form.ID("squad"), dayOf(r, r.Form.Raw("day")).Format(time.DateOnly))
}

// AddTarget adds what a week should hold.
func (in Room) AddTarget(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	t := club.Target{Squad: f.ID("squad"), Region: f.Raw("region"), Quality: f.Raw("quality"),
		Hard: f.Raw("of") == "hard", AtMost: f.Raw("sign") == "most", Days: f.Int("days", 0, 7)}
	if t.Hard {
		t.Region, t.Quality = "", ""
	}
	err := f.Err()
	if err == nil {
		_, err = in.Keep.Squad(r.Context(), r.Club(), t.Squad)
	}
	if err == nil {
		_, err = in.Keep.Save(r.Context(), r.By, "target "+t.Words(), planner.Change{Is: t})
	}
	return r.Saved(err, "Target: "+t.Words(), weekAgain(r), func(wrong plan.Problems) (*shell.Page, error) {
		return in.weekPage(r, wrong)
	})
}

// RemoveTarget takes a target out.
func (in Room) RemoveTarget(r *shell.Request) (shell.Answer, error) {
	_, err := in.Keep.Save(r.Context(), r.By, "target out", planner.Change{ID: r.ParamID("id"),
		Edition: r.Form.Count("edition"), Is: club.Target{Hard: true, Days: 1}, Gone: true})
	return r.Saved(err, "The target is out", weekAgain(r), func(wrong plan.Problems) (*shell.Page, error) {
		return in.weekPage(r, wrong)
	})
}

// Fill puts a drill into the next session.
func (in Room) Fill(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	_, said, err := in.Learn.FillNext(r.Context(), r.By, f.ID("squad"), dayOf(r, f.Raw("day")), f.Raw("code"))
	return r.Saved(err, said, weekAgain(r), func(wrong plan.Problems) (*shell.Page, error) {
		return in.weekPage(r, wrong)
	})
}
