package phone

import (
	"context"
	"fmt"
	"html/template"
	"math"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner"
	"cuestart/planner/reach"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

// mineBody is one player's run-in.
type mineBody struct {
	shell.Tongue
	Base, Link, Back    string // addresses of the page, of the team's, and of where a routine is kept
	Title, Name, Number string
	Own                 bool // it is the player's own link
	StartName, Start    string
	Day, Zone           string
	Edition             int
	Published           string
	StartUnix, NowMilli int64 // StartUnix 0: it is a routine, which has no day
	Countdown, Caption  string
	Items               []item        // of a routine
	List                template.HTML // of a session
	Carry               string
	Facing              []plan.Fact   // today's opponent or partner, for who has craft to do
	Later               template.HTML // lists with a line of their own
	Late                []string      // times to be there at, for who is late
	Joints              []string
}

// Efforts are how hard a run-in can have been.
func (*mineBody) Efforts() []int { return []int{0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10} }

// item is a block or an event of the day, as one person has it.
type item struct {
	shell.Tongue
	Key                 string
	From, To            int // seconds from the start
	ToGo, Clock         string
	Name, Length        string
	Phase               drill.Phase
	Fixed               bool
	Where, With, Leader string
	Walk                string // to get there: "Walk to the hall, 0:25"
	Drills              []move
	Others              []string // names of the drills that they may choose instead
	Rounds              string
	Kit                 []string
	Why                 string
	Yours               []string // own time: what they always do, and what is tight
	State               string   // past, now, next or "", when the page was made
	Seconds             int
	Missed              string
	Map                 template.HTML // the plan of the ground, where one is and goes next; "": none
	Steps               []step        // what is done one after the other, for the page's script
}

// move is a drill of a block, as one person does it.
type move struct {
	Name, Dose string
	Instead    string // what it stands in for, by a ruling
	Out        bool   // by a ruling they leave it out
	Other      bool   // of a choice, and they do others
	Cues       []string
	Caution    string
	Easier     string // the name of its easier form
	Picture    string // address of the club's own picture; "": it has none
	Drawn      chalk.Drawn
}

// Opened tells whether the page shows all of the item at once.
func (i item) Opened() bool { return i.State == "now" || i.State == "next" }

// Timeless is the item without what depends on when it is: two that are the same so are
// told to an open page by their times alone.
func (i item) Timeless() item {
	i.From, i.To, i.ToGo, i.Clock, i.State = 0, 0, "", "", ""
	return i
}

// joints are what can be tight or sore, as players say it.
var joints = []string{"ankle", "calf", "knee", "thigh", "hamstring", "groin", "hip", "back", "shoulder", "elbow",
	"wrist", "neck"}

// Mine is a player's run-in: as everybody with the team's link may see it, or under
// their own link.
func (in Room) Mine(r *shell.Request) (shell.Answer, error) {
	found, err := in.shared(r)
	if err != nil {
		return nil, err
	}
	if found.Leader() != nil {
		return in.leader(r, found)
	}
	tongue := r.Tongue()
	if later := r.Query("list"); later != "" {
		return in.laterAlone(r, tongue, found, later)
	}
	b := headOf(r, tongue, found)
	all, err := in.listed(r, tongue, found)
	if err != nil {
		return nil, err
	}
	now := int(r.Now().Sub(found.Schedule.Start).Seconds())
	b.count(now)
	b.Carry, b.List, b.Later = all.carry, all.at(now), template.HTML(all.later) // made by the template of a list
	return &shell.Page{Screens: screens, Name: "mine", Title: b.Name + ", " + b.Title, Body: b, Phone: true,
		Tongue: b.Tongue}, nil
}

// headOf is a player's page without the list.
func headOf(r *shell.Request, tongue shell.Tongue, found *reach.Shared) *mineBody {
	d, start := found.Document, found.Schedule.Start
	p := d.Player(found.Person)
	w := way(r)
	return &mineBody{Tongue: tongue, Base: base(w), Link: shell.Link(w.Token), Own: found.Own, Title: d.Title,
		Name: p.ShortName(), Number: number(p), StartName: d.StartName,
		Start: clock.Clock(start, 0), Day: tongue.ShortDay(start), Zone: d.Start.Zone, Edition: found.Number,
		Published: tongue.Moment(found.At.In(start.Location())),
		StartUnix: start.Unix(), NowMilli: r.Now().UnixMilli(), Late: lateTimes(d, start, r.Now()), Joints: joints,
		Facing: d.Facing}
}

// mineOf is a player's page with the list.
func (in Room) mineOf(r *shell.Request, tongue shell.Tongue, found *reach.Shared) (*mineBody, error) {
	b, d := headOf(r, tongue, found), found.Document
	entries := list.Of(d, found.Schedule, found.Person)
	maps := wheres(tongue, d, entries)
	for i := range entries {
		one, err := in.itemOf(r, tongue, d, &entries[i], found.ClubID)
		if err != nil {
			return nil, err
		}
		one.With, one.Map = names(tongue, d, &entries[i]), maps[i]
		if one.Yours = entries[i].Own; entries[i].Block != nil && entries[i].Block.Frame() && found.Own {
			tight, err := in.Reach.Tight(r.Context(), found)
			if err != nil {
				return nil, err
			}
			one.Yours = append(slices.Clone(one.Yours), tightWords(tongue, tight[found.Person])...)
		}
		b.Items = append(b.Items, one)
	}
	b.Carry = strings.Join(append(list.Carry(entries), list.Brought(d, found.Person)...), ", ")
	later, err := in.laterOf(r, tongue, found)
	b.Later = template.HTML(later) // made by the template of a list
	return b, err
}

// tightWords say what is tight.
func tightWords(tongue shell.Tongue, tight []string) (lines []string) {
	for _, says := range tight {
		lines = append(lines, tongue.T("tight: %s", says))
	}
	return lines
}

// lateTimes are when somebody who is late may be there: every five minutes from when the
// ground opens, or from now, to the start.
func lateTimes(d *plan.Document, start, now time.Time) (times []string) {
	const every = 5 * time.Minute
	from := now
	if open, err := d.Open.Offset(start); err == nil {
		if opens := start.Add(time.Duration(open) * time.Second); opens.After(from) {
			from = opens
		}
	}
	for at := from.Truncate(every).Add(every); !at.After(start); at = at.Add(every) {
		times = append(times, at.In(start.Location()).Format("15:04"))
	}
	return times
}

// bareOf is a block or an event as one person has it, without what is done in it.
func bareOf(tongue shell.Tongue, d *plan.Document, e *list.Entry) item {
	one := item{Tongue: tongue, Key: e.Key, From: int(e.From), To: int(e.To), Name: e.Name, Fixed: e.Block == nil,
		Seconds: e.Seconds(), Length: clock.Lasting(e.Seconds())}
	if e.Walk > 0 {
		one.Walk = tongue.T("Walk to %s, %s", d.ZoneName(e.Zone), clock.Duration(e.Walk))
	}
	switch late := (schedule.Window{ID: e.Key}).Late(); {
	case late != "":
		if start, err := d.Start.Resolve(); err == nil {
			one.Name = tongue.T("You come at %s", clock.Clock(start, e.To))
		}
		one.Missed = tongue.T("Nobody waits. What you miss and can make up comes first.")
	case e.Joined > 0:
		one.Missed = tongue.T("%s of it are over when you join", clock.Lasting(e.Joined))
	case e.Missed > 0:
		one.Missed = tongue.T("You miss %s of it", clock.Lasting(e.Missed))
	}
	return one
}

// itemOf is a block or an event as one person has it.
func (in Room) itemOf(r *shell.Request, tongue shell.Tongue, d *plan.Document, e *list.Entry,
	club uint64) (item, error) {
	one := bareOf(tongue, d, e)
	if one.Fixed {
		return one, nil
	}
	pictures, err := in.Books.Pictures(r.Context(), club)
	if err != nil {
		return one, err
	}
	book, err := in.Reach.Shown(r.Context(), club)
	if err != nil {
		return one, err
	}
	one.Phase, one.Where, one.Leader, one.Why, one.Kit = e.Block.Phase, d.ZoneName(e.Block.Zone),
		d.LeaderName(e.Block.Leader), e.Block.Says(), e.Kit()
	one.Rounds = e.How(tongue.Say())
	for _, doing := range e.Drills {
		known := doing.Drill
		if doing.Other {
			one.Drills, one.Others = append(one.Drills, move{Name: known.Name, Other: true}),
				append(one.Others, known.Name)
			continue
		}
		if doing.Out {
			one.Drills = append(one.Drills, move{Name: known.Name, Out: true})
			continue
		}
		easier, _ := book.Easier(known)
		does := move{Name: known.Name, Dose: doing.Words(tongue.Say()), Instead: doing.Instead, Cues: known.Cues,
			Caution: known.Caution, Easier: easier.Name,
			Drawn: chalk.Of(book.Looks(&known), &known)}
		if stamp := pictures[known.Code]; stamp != "" {
			does.Picture = picture(r, known.Code, stamp)
		}
		one.Drills = append(one.Drills, does)
	}
	one.Steps = stepsOf(tongue, e)
	return one, nil
}

// left is how long it is to the start, or since it, and what that is; at is in seconds
// from the start.
func left(at int) (length, caption string) {
	day, hour := 24*60*60, 60*60
	switch {
	case at > 0:
		return clock.Offset(at).ToGo(), "since the start"
	case -at >= day:
		return fmt.Sprintf("%d d %d h", -at/day, -at%day/hour), "to go"
	case -at >= hour:
		return fmt.Sprintf("%d:%02d", -at/hour, -at%hour/60), "hours to go"
	}
	return clock.Offset(at).ToGo(), "minutes to go"
}

// keptList is a player's list as it is written: the same for as long as the edition and
// what is ruled for the player are.
type keptList struct {
	items []keptItem
	carry string
	later string // the lists with a line of their own, written
}

type keptItem struct {
	from, to int
	html     string
}

// listed is the list of a way, made once however many ask for it.
func (in Room) listed(r *shell.Request, tongue shell.Tongue, found *reach.Shared) (keptList, error) {
	key := fmt.Sprint(found.Token, found.Session, found.Number, found.Person, found.Own, tongue.Lang,
		found.Document.Restrictions)
	return in.lists.Get(r.Context(), key, func(ctx context.Context) (keptList, error) {
		b, err := in.mineOf(r.Within(ctx), tongue, found)
		if err != nil {
			return keptList{}, err
		}
		b.mark(math.MinInt, found.Schedule)
		list := keptList{carry: b.Carry, later: string(b.Later)}
		for _, one := range b.Items {
			one.State = ""
			list.items = append(list.items, keptItem{one.From, one.To, itemHTML(one)})
		}
		return list, nil
	})
}

// at writes the list with what is now, in seconds from the start.
func (k keptList) at(now int) template.HTML {
	var all strings.Builder
	met := false
	for _, one := range k.items {
		state := "mine"
		switch {
		case one.to <= now:
			state = "mine past"
		case !met && one.from <= now:
			state, met = `mine now" open="`, true
		case !met:
			state, met = `mine next" open="`, true
		}
		all.WriteString(strings.Replace(one.html, `"mine "`, `"`+state+`"`, 1))
	}
	return template.HTML(all.String()) // made by the template of an item
}

// count says how long it is to the start.
func (b *mineBody) count(now int) {
	b.Countdown, b.Caption = left(now)
	b.Caption = b.Word(b.Caption)
}

// mark fills in what depends on the time, in seconds from the start.
func (b *mineBody) mark(now int, s *schedule.Schedule) {
	b.count(now)
	met := false
	for i := range b.Items {
		one := &b.Items[i]
		one.ToGo, one.Clock = clock.Offset(one.From).ToGo(), clock.Clock(s.Start, clock.Offset(one.From))
		switch {
		case one.To <= now:
			one.State = "past"
		case !met && one.From <= now:
			one.State, met = "now", true
		case !met:
			one.State, met = "next", true
		}
	}
}

// names are who a player does something with, where that is not everybody.
func names(tongue shell.Tongue, d *plan.Document, e *list.Entry) string {
	if len(e.With) > 3 {
		return strings.ToLower(d.Audience(e.Block.Who))
	}
	var names []string
	for _, id := range e.With {
		names = append(names, d.Player(id).ShortName())
	}
	return strings.Join(names, ", ")
}

// Alone is a routine step by step, for one person, at their own pace: there is no day
// and no start.
func (in Room) Alone(r *shell.Request) (shell.Answer, error) {
	routine, err := in.Books.Routine(r.Context(), r.Club(), r.ParamID("id"))
	if err != nil {
		return nil, err
	}
	return in.alone(r, r.Club(), routine, fmt.Sprintf("/routines/%d/steps", routine.ID), shell.Routine(routine.ID))
}

// Handed is the same for whoever has the link of a routine that is handed out.
func (in Room) Handed(r *shell.Request) (shell.Answer, error) {
	clubID, routine, err := shell.FindHanded(r)
	if err != nil {
		return nil, err
	}
	at := shell.Handed(r.Param("token"))
	return in.alone(r, clubID, routine, at+"/steps", at)
}

func (in Room) alone(r *shell.Request, clubID uint64, routine *planner.Entry[club.Routine], base,
	back string) (shell.Answer, error) {
	tongue := r.Tongue()
	b := &mineBody{Tongue: tongue, Base: base, Back: back, Own: true, Name: routine.Is.Name, Title: routine.Is.For,
		NowMilli: r.Now().UnixMilli()}
	entries, d := list.Alone(routine.Is.Blocks), new(plan.Document)
	for i := range entries {
		one, err := in.itemOf(r, tongue, d, &entries[i], clubID)
		if err != nil {
			return nil, err
		}
		one.ToGo, one.State = clock.Lasting(one.Seconds), "now"
		b.Items = append(b.Items, one)
	}
	b.Carry = strings.Join(list.Carry(entries), ", ")
	return &shell.Page{Screens: screens, Name: "mine", Title: b.Name, Body: b, Phone: true, Tongue: tongue}, nil
}

// lang is another language of the page.
type lang struct{ Code, Name string }

// Langs are the languages that the page is not in.
func (b *mineBody) Langs() (other []lang) {
	for _, t := range shell.Tongues {
		if t[0] != b.Tongue.Lang {
			other = append(other, lang{t[0], t[1]})
		}
	}
	return other
}

// Said are the sentences that the page's script says, by what it calls them.
func (b *mineBody) Said() string { return sentences(b.Tongue) }
