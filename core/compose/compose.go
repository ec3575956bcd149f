// Package compose makes the run-in of a new session: blocks chosen to prepare the joints and
// planes that the sport stresses, within the minutes and the level's cap, the routines of
// positions, leaders and zones assigned, and all of it fitted and checked. The same brief gives
// the same plan, and every block says why it is there.
package compose

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/sport"
	"cuestart/core/today"
)

// Brief is what a coach states of a session to come, and what the club has.
type Brief struct {
	Title   string
	Kind    plan.Kind
	Start   clock.Start
	Minutes int // before the start at which work may begin
	Method  string
	Place   string
	Grade   drill.Grade
	Sport   *sport.Sport
	Turn    plan.Turn
	Captain string // id of the player who goes to the toss; "": nobody is named

	Players      []plan.Player
	Stiff        []string    // ids of players who need more range; hypermobile ones say so themselves
	Bench        []string    // ids of players who do not begin
	Roles        []plan.Unit // roles of the day, by name, and who has them; of the others of the sport nobody has one
	Units        []plan.Unit // the squad's own; they go before the sport's of the same name
	Zones        []plan.Zone
	Leaders      []plan.Leader  // the first leads what the whole squad does
	Kit          map[string]int // none: whatever is needed is there
	Today        plan.Conditions
	Restrictions []plan.Restriction
	Fixed        []plan.Fixed // what the day holds; nil: as the sport has it

	Book   []drill.Drill
	Recent []string // codes of drills lately done, which give way to others
	Steps  int      // of each fit, as in runin.Fit
}

// Made is a composed plan.
type Made struct {
	Document *plan.Document
	Schedule *schedule.Schedule
	Findings []check.Finding
}

// mendsAtMost bounds how often a composed plan is mended before it is handed over with the stop
// in it.
const mendsAtMost = 24

// Compose makes a plan. It fails with [plan.Problems] where the brief does not
// hold. Stops that no single change mends are left in the findings.
func Compose(ctx context.Context, b Brief) (*Made, error) {
	c, err := newComposer(b)
	if err != nil {
		return nil, err
	}
	c.Steps = min(c.Steps, triedSteps) // until it stands
	c.fixed()
	c.softTissue()
	c.general()
	c.bodies()
	c.crafts()
	c.fill()
	c.finish()
	c.rulings()
	c.lead()
	c.doc.Relist()
	made, err := c.mended(ctx)
	if err != nil {
		return nil, err
	}
	if made, err = c.bettered(ctx, made); err != nil {
		return nil, err
	}
	if made, err = c.completed(ctx, made); err != nil {
		return nil, err
	}
	return made.refined(ctx, b)
}

// mended is the plan fitted, checked, and mended until no stop is left, or none
// that can be.
func (c *composer) mended(ctx context.Context) (*Made, error) {
	for n := 0; ; n++ {
		c.say()
		fitted, err := schedule.Fit(ctx, c.doc, c.Steps)
		if err != nil {
			return nil, err
		}
		in := check.Input{Document: c.doc, Schedule: fitted, Book: c.Book, Steps: c.Steps}
		findings := check.Check(in)
		mend := func(f check.Finding) bool { return f.Severity == check.Stop && c.mend(ctx, in, f) }
		if n >= mendsAtMost || !slices.ContainsFunc(findings, mend) {
			c.doc.Note(c.says...)
			return &Made{Document: c.doc, Schedule: fitted, Findings: findings}, nil
		}
	}
}

// warnsAtMost bounds how many warnings are looked at, triesAtMost how many changes are
// tried for them, triedSteps how well each of these is fitted.
const (
	warnsAtMost = 12
	triesAtMost = 9
	triedSteps  = 1_000
)

// say lets every block say what it is for and why it is there, also after a mend has
// changed its drills.
func (d *day) say() {
	for i := range d.doc.Blocks {
		b := &d.doc.Blocks[i]
		b.Aim = b.Says()
		b.Why = cmp.Or(b.Why, b.Aims())
	}
}

// mend changes the plan so that a stop goes away, by the mildest way there is,
// and reports whether it did.
func (c *composer) mend(ctx context.Context, in check.Input, f check.Finding) bool {
	if c.excuse(f) || f.Rule == "deep-cold" && c.warmLonger() {
		return true
	}
	if next, said, err := check.Mend(ctx, in, f.Rule, f.Where); err == nil {
		c.doc = next
		c.says = append(c.says, fmt.Sprintf("%s: %s", f.What, said))
		return true
	}
	if f.Rule == "impossible" {
		return c.giveUp(in.Schedule)
	}
	b := c.doc.Block(f.Where)
	if b == nil && f.Rule == "deep-cold" { // in several
		b = c.hardest(in.Schedule)
	}
	if b == nil {
		return false
	}
	// Nothing milder mends it.
	c.says = append(c.says, fmt.Sprintf("%s is left out: %s", b.Name, f.What))
	c.doc.Remove(b.ID)
	return true
}

// hardest is the block that wants the warmest body of those that are kept, the one that is
// given up most willingly, and the last of these; nil where none does.
func (d *day) hardest(fitted *schedule.Schedule) (block *plan.Block) {
	for _, was := range fitted.Blocks(d.doc) {
		b := d.doc.Block(was.ID)
		cold := func(i plan.Item) bool {
			return i.Drill.Deep() || i.Drill.Static || i.Drill.NeedsWarm || i.Drill.Effort >= drill.SprintEffort
		}
		if was.Kept && b.Phase != drill.Raise && slices.ContainsFunc(b.Items, cold) &&
			(block == nil || b.Priority.Weight() <= block.Priority.Weight()) {
			block = b
		}
	}
	return block
}

// giveUp asks no longer for the musts that the fit had no place for, or no more than once of each
// thing, and reports whether there were any. Nobody is left cold for the rest: what wants a warm
// body goes before what warms it.
func (d *day) giveUp(fitted *schedule.Schedule) (gave bool) {
	for _, was := range fitted.Blocks(d.doc) {
		if b := d.doc.Block(was.ID); (!was.Kept || fitted.OnlyOnce(b.ID)) && b.Priority == plan.Must {
			if hard := d.hardest(fitted); b.Phase == drill.Raise && hard != nil {
				d.says = append(d.says, hard.Name+" is left out: there is no time to be warm for it")
				d.doc.Remove(hard.ID)
				return true
			}
			b.Priority, gave = plan.Should, true
			d.says = append(d.says, b.Name+" may be left out: there are too few minutes for all")
		}
	}
	return gave
}

// Day makes the document of a brief without its blocks: people, places and what
// the day holds. It says what it went without, and fails with [plan.Problems]
// where the brief does not hold.
func Day(b Brief) (d *plan.Document, says []string, err error) {
	today, err := newDay(b)
	if err != nil {
		return nil, nil, err
	}
	today.fixed()
	return today.doc, today.says, nil
}

// refined is the plan fitted with more steps, now that its blocks stand, where
// that is better and brings no stop.
func (m *Made) refined(ctx context.Context, b Brief) (*Made, error) {
	fitted, err := schedule.Fit(ctx, m.Document, 2*b.Steps)
	if err != nil {
		return nil, err
	}
	findings := check.Check(check.Input{Document: m.Document, Schedule: fitted, Book: b.Book})
	if fitted.Result.Beats(m.Schedule.Result) && check.Count(findings).Stops <= check.Count(m.Findings).Stops {
		m.Schedule, m.Findings = fitted, findings
	}
	return m, nil
}

// day is a brief and the document that is made of it: who is there, where, and what the day holds.
type day struct {
	Brief
	doc  *plan.Document
	says []string // what it goes without
}

// composer builds the blocks of one document.
type composer struct {
	day
	byCode map[string]drill.Drill
	load   map[string]int // seconds given to a zone or leader so far
	done   *coverage
	loose  bool // somebody is hypermobile
	brisk  bool // there are few minutes of work
	freed  int  // seconds that are free for work; negative: not worked out yet
}

func newComposer(b Brief) (*composer, error) {
	today, err := newDay(b)
	if err != nil {
		return nil, err
	}
	c := &composer{day: *today, byCode: map[string]drill.Drill{}, load: map[string]int{}, done: newCoverage(),
		freed: -1}
	for _, k := range b.Book {
		c.byCode[k.Code] = k
	}
	c.loose = slices.ContainsFunc(c.doc.Players, func(p plan.Player) bool { return p.Loose })
	return c, nil
}

// newDay is the day of a brief, without a block.
func newDay(b Brief) (*day, error) {
	if b.Sport == nil {
		return nil, plan.Problems{{Where: "sport", What: "say which sport it is"}}
	}
	if b.Minutes < 5 || b.Minutes > 180 {
		return nil, plan.Problems{{Where: "minutes", What: "a run-in takes between 5 and 180 minutes"}}
	}
	b.Method, b.Grade = cmp.Or(b.Method, plan.DefaultMethod), cmp.Or(b.Grade, drill.Club)
	margin, start := max(180, b.Sport.Margin*60), b.Sport.Start // three minutes of calm at the least
	if b.Kind == plan.Training {
		margin, start = 180, cmp.Or(b.Sport.Training, "Training")
	}
	d := &day{Brief: b, doc: &plan.Document{
		Format: plan.Format,
		Title:  b.Title,
		Kind:   b.Kind,
		Party: plan.Party{Grade: b.Grade, Players: slices.Clone(b.Players), Leaders: slices.Clone(b.Leaders),
			Kit: b.Kit, Restrictions: slices.Clone(b.Restrictions)},
		Site: plan.Site{Place: b.Place, Zones: slices.Clone(b.Zones), Today: b.Today},
		Hours: plan.Hours{Start: b.Start, StartName: start, Open: clock.BeforeStart(b.Minutes * 60),
			Margin: min(margin, max(180, b.Minutes*60/5/60*60))},
		Work: plan.Work{Method: b.Method, Stresses: b.Sport.Stresses},
	}}
	d.air()
	d.units()
	d.due()
	d.ground()
	return d, nil
}

// air is what the day's weather asks for: none of it indoors, layers while waiting, water where it is hot.
func (d *day) air() {
	today := &d.doc.Today
	today.Written = d.Sport.Offers
	outdoors := slices.ContainsFunc(d.doc.Zones, func(z plan.Zone) bool { return !z.Covered })
	if len(d.doc.Zones) > 0 && !outdoors {
		today.Celsius, today.Wind, today.Wet = nil, 0, false // there is no weather
	}
	if d.Kind == plan.Match && today.Air() != plan.Hot {
		today.Layers = true // while waiting; nobody warms up to cool again
	}
	if today.Air() == plan.Hot && today.DrinkEvery == 0 {
		today.DrinkEvery = plan.DrinkEvery
	}
}

// ground closes the places of play at the start, where nothing else is said.
func (d *day) ground() {
	for i := range d.doc.Zones {
		z := &d.doc.Zones[i]
		stays := slices.ContainsFunc(d.Sport.Zones, func(other sport.Zone) bool {
			return other.Name == z.Name && other.After
		})
		if d.Kind == plan.Match && len(z.Free) == 0 && !stays {
			z.Free = []plan.Span{{From: clock.BeforeStart(24 * 3600), To: clock.BeforeStart(0)}}
		}
	}
}

// fixed puts in what the day usually holds.
func (d *day) fixed() {
	if d.Fixed != nil {
		d.doc.Fixed = slices.Clone(d.Fixed)
		return
	}
	if d.Kind != plan.Match || len(d.doc.Players) == 1 {
		return // who is alone has no talk and no toss
	}
	if d.Minutes < usualMinutes && len(d.Sport.Fixed) > 0 {
		d.says = append(d.says,
			fmt.Sprintf("You have %d minutes, so toss, talk and line-up moved: look at Times", d.Minutes))
	}
	for i, f := range d.Sport.Fixed {
		who := []string{plan.Everyone}
		switch f.Who {
		case sport.Everyone:
		case "captain":
			who = d.who(plan.Captain)
		default:
			who = d.who(f.Who)
		}
		if len(d.doc.Members(who)) == 0 {
			if f.Who == "captain" {
				d.says = append(d.says, fmt.Sprintf("%s, %d to %d minutes to go: no captain chosen", f.Name, f.From,
					f.To))
			} else {
				continue
			}
		}
		d.doc.Fixed = append(d.doc.Fixed, plan.Fixed{ID: fmt.Sprintf("day-%d", i+1), Name: f.Name, Who: who,
			Span: plan.Span{From: clock.BeforeStart(d.pressed(f.From)), To: clock.BeforeStart(d.pressed(f.To))}})
	}
}

// usualMinutes is how many minutes before the start a sport's usual day has for it all.
const usualMinutes = 30

// pressed is when something usual stands, in seconds before the start: where there is
// less time than usual, everything moves together.
func (d *day) pressed(minutes int) int {
	return minutes * 60 * min(d.Minutes, usualMinutes) / usualMinutes / clock.Grid * clock.Grid
}

// free is how many seconds there are for work: from the opening to the margin,
// less what holds the whole squad.
func (c *composer) free() int {
	if c.freed < 0 {
		c.freed = c.freeSeconds()
	}
	return c.freed
}

func (d *day) freeSeconds() int {
	open, due := -d.Minutes*60, -d.doc.Margin
	free := due - open
	start, err := d.doc.Start.Resolve()
	for _, f := range d.doc.Fixed {
		held, wrong := f.Span.Window(start)
		if err == nil && wrong == nil && len(d.doc.Members(f.Who)) == len(d.doc.Players) {
			free -= held.Overlap(clock.Window{From: clock.Offset(open), To: clock.Offset(due)})
		}
	}
	return max(0, free)
}

// item is the drill ready for a block, with what stands in for it where a ruling
// touches it.
func (c *composer) item(k drill.Drill) plan.Item {
	item := plan.Item{Drill: k.For(c.Grade).In(c.Sport.System)}
	if !slices.ContainsFunc(c.Restrictions, func(r plan.Restriction) bool { return today.Touches(r, k) != "" }) {
		return item
	}
	for code, into := range map[string]**drill.Drill{k.Easier: &item.Easier, k.Swap: &item.Swap} {
		if other, ok := c.byCode[code]; ok {
			other = other.For(c.Grade)
			*into = &other
		}
	}
	return item
}
