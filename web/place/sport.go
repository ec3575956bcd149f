package place

import (
	"strconv"
	"strings"

	"cuestart/book"
	"cuestart/core/check"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/planner/books"
	"cuestart/web/shell"
)

// sportBody is the club's sport, open for change in rows.
type sportBody struct {
	Key, Name, Start, First string
	Training, Season        string
	Begins                  plan.Turns
	measure.System
	Long, Wide, Round string // of the ground, in the club's unit
	Offers            plan.Offers
	Margin            string
	Stresses          []shell.Tick
	Tables            []table
	Presets           []shell.Choice
	Drills            []shell.Choice // names to write
	Who               []string
	Own               bool
	Edition           uint32
	Problems          plan.Problems
}

// Sport is the page of the club's sport.
func (in Room) Sport(r *shell.Request) (shell.Answer, error) {
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	if preset, ok := book.Sport(r.Query("preset")); ok {
		plays = &preset
	}
	drills, err := in.Books.Book(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	if r.Query("principles") != "" && len(plays.Principles) == 0 {
		usual := *plays
		for _, words := range check.Usual(plays.Stresses) {
			usual.Principles = append(usual.Principles, sport.Principle{Words: words})
		}
		plays = &usual
	}
	return in.sportPage(r, drills, bodyOf(plays, drills))
}

func (in Room) sportPage(r *shell.Request, drills *books.Book, b *sportBody) (*shell.Page, error) {
	own, err := in.Books.OwnSport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	if own != nil {
		b.Own, b.Edition = true, own.Edition
	}
	for _, p := range book.Sports() {
		b.Presets = append(b.Presets, shell.Choice{Value: p.Key, Label: p.Name})
	}
	for _, d := range drills.Drills {
		b.Drills = append(b.Drills, shell.Choice{Value: d.Code, Label: nameOf(drills, d.Code)})
	}
	return &shell.Page{Screens: screens, Name: "sport", Title: "Our sport", Nav: "ground", Body: b}, nil
}

func bodyOf(p *sport.Sport, drills *books.Book) *sportBody {
	b := &sportBody{Key: p.Key, Name: p.Name, Start: p.Start, Training: p.Training, Season: p.Season, Begins: p.Begins,
		System: p.System, Long: far(p, p.Length), Wide: far(p, p.Width), Round: far(p, p.Lap), Offers: p.Offers,
		First: p.First, Margin: strconv.Itoa(p.Margin),
		Stresses: shell.Ticks(drill.Regions, p.Stresses), Who: []string{sport.Everyone, sport.Bench}}
	positions, lines, principles := positions.table(), lines.table(), principles.table()
	for _, principle := range p.Principles {
		principles.add(principle.Words, string(principle.Kind))
	}
	for _, one := range p.Positions {
		positions.add(one, several(p.Called[one]))
	}
	for _, l := range p.Lines {
		across := ""
		if l.Across {
			across = ways[1].Value
		}
		lines.add(l.Name, p.System.Length(l.Metres), several(l.Also), across)
	}
	units, due, roles, fixed, craft, team := units.table(), due.table(), roles.table(), fixed.table(), craft.table(),
		team.table()
	for _, u := range p.Units {
		units.add(u.Name, several(u.Positions), several(u.Also))
		b.Who = append(b.Who, u.Name)
	}
	b.Who = append(b.Who, p.Positions...)
	for _, d := range p.Due {
		due.add(d.Who, strconv.Itoa(d.First), strconv.Itoa(d.Later))
	}
	for _, r := range p.Roles {
		roles.add(r.Name, several(r.Positions), strconv.Itoa(max(1, r.Of)))
		b.Who = append(b.Who, r.Name)
	}
	for _, f := range p.Fixed {
		fixed.add(f.Name, f.Who, strconv.Itoa(f.From), strconv.Itoa(f.To))
	}
	sides := sides.table()
	for away, side := range []sport.Side{p.Home, p.Away} {
		sides.add(p.NameOf(away == 1), strconv.Itoa(side.From), strconv.Itoa(side.Sooner), string(side.Turn))
	}
	for _, k := range p.Craft {
		craft.add(craftRow(k, drills)...)
	}
	team.add(craftRow(p.Team, drills)...)
	for _, t := range []*table{positions, lines, principles, units, due, roles, fixed, craft} {
		t.add(make([]string, len(t.Columns))...) // one more, to fill in
	}
	b.Tables = []table{*positions, *principles, *units, *roles, *due, *sides, *fixed, *craft, *team, *lines}
	return b
}

func craftRow(k sport.Craft, drills *books.Book) []string {
	var names []string
	for _, code := range k.Drills {
		names = append(names, nameOf(drills, code))
	}
	stations := ""
	if k.Stations > 0 {
		stations = strconv.Itoa(k.Stations)
	}
	return []string{k.Name, several(k.For), several(names), string(k.Priority), stations, k.Phase, k.Zone, string(k.On)}
}

// nameOf is what a drill is written as: its name, or its code where another has
// that name too.
func nameOf(drills *books.Book, code string) string {
	d, ok := drills.Find(code)
	if other, _ := drills.Named(d.Name); !ok || other.Code != code {
		return code
	}
	return d.Name
}

// far is a length of the ground in the club's unit; "" where it is not known.
func far(p *sport.Sport, metres float64) string {
	if metres == 0 {
		return ""
	}
	return p.System.Length(metres)
}

// readFar reads a length of the ground; 0 where it is not said.
func readFar(f *shell.Form, in measure.System, field string) float64 {
	text := f.Text(field)
	metres, ok := in.ReadLength(text)
	if text != "" && !ok {
		f.Refuse("sport", "%q is no length: write it as 68 or 75 yd", text)
	}
	return metres
}

// several writes a list into one field.
func several(list []string) string { return strings.Join(list, "; ") }

// SaveSport saves the club's copy of its sport.
func (in Room) SaveSport(r *shell.Request) (shell.Answer, error) {
	drills, err := in.Books.Book(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	p, tables := readSport(r.Form, *plays, drills)
	if bad := p.Validate(func(code string) bool { _, ok := drills.Find(code); return ok }); bad != nil {
		for _, line := range strings.Split(bad.Error(), "\n") {
			r.Form.Refuse("sport", "%s", strings.TrimPrefix(line, "sport "+p.Key+": "))
		}
	}
	if bad := shell.Problems(club.Sport{Sport: p}.Validate()); bad != nil {
		r.Form.Refuse("sport", "%s", bad.Error())
	}
	if err = r.Form.Err(); err == nil {
		err = in.Books.SaveSport(r.Context(), r.By, p, r.Form.Count("edition"))
	}
	return r.Saved(err, p.Name+" is saved", "/sport", func(wrong plan.Problems) (*shell.Page, error) {
		b := bodyOf(&p, drills)
		b.Margin, b.Tables, b.Problems = r.Form.Raw("margin"), tables, wrong
		return in.sportPage(r, drills, b)
	})
}

// readSport reads the form; what it does not ask stays that of the club's sport, or of the preset
// that it is of. It returns the rows as they were sent too.
func readSport(f *shell.Form, from sport.Sport, drills *books.Book) (p sport.Sport, sent []table) {
	if p = from; p.Key != f.Raw("key") {
		p, _ = book.Sport(f.Raw("key"))
	}
	p.System = measure.System{Yards: f.Raw("lengths") == "yd", Feet: f.Raw("lengths") == "ft",
		Fahrenheit: f.Raw("degrees") == "F", Miles: f.Raw("wind") == "mph"}
	p.Length, p.Width, p.Lap = readFar(f, p.System, "long"), readFar(f, p.System, "wide"), readFar(f, p.System, "round")
	p.Key, p.Name, p.Start, p.First = f.Raw("key"), f.Text("name"), f.Text("start"), f.Text("first")
	p.Margin, p.Stresses = f.Int("margin", 0, 60), f.List("stresses")
	p.Offers = plan.Offers(f.Raw("offers"))
	p.Training, p.Season = f.Text("training"), f.Text("season")
	p.Begins = plan.Turns{First: f.Text("begins_first"), Later: f.Text("begins_later")}
	p.Units, p.Due, p.Roles, p.Fixed, p.Craft, p.Team = nil, nil, nil, nil, nil, sport.Craft{}
	read := func(c columns) *table {
		t := c.read(f)
		sent = append(sent, *t)
		return t
	}
	p.Positions, p.Called, p.Lines, p.Principles = nil, map[string][]string{}, nil, nil
	readPositions(&p, read(positions))
	for _, row := range read(units).rows() {
		p.Units = append(p.Units, sport.Unit{Name: row.text(0), Positions: row.list(1), Also: row.list(2)})
	}
	for _, row := range read(roles).rows() {
		p.Roles = append(p.Roles, sport.Role{Name: row.text(0), Positions: row.list(1), Of: row.minutes(f, 2)})
	}
	for _, row := range read(due).rows() {
		p.Due = append(p.Due, sport.Due{Who: row.text(0), First: row.minutes(f, 1), Later: row.minutes(f, 2)})
	}
	p.Home, p.Away = readSides(f, read(sides))
	for _, row := range read(fixed).rows() {
		p.Fixed = append(p.Fixed, sport.Fixed{Name: row.text(0), Who: row.text(1), From: row.minutes(f, 2),
			To: row.minutes(f, 3)})
	}
	for _, row := range read(craft).rows() {
		p.Craft = append(p.Craft, row.craft(f, drills))
	}
	for _, row := range read(team).rows() {
		p.Team = row.craft(f, drills)
	}
	readOwn(f, &p, read)
	return p, sent
}

// readSides reads what is different at home and away; a row without a name has the usual one.
func readSides(f *shell.Form, t *table) (home, away sport.Side) {
	for i, side := range []*sport.Side{&home, &away} {
		if i < len(t.Rows) {
			row := tableRow(t.Rows[i])
			*side = sport.Side{Called: row.text(0), From: row.minutes(f, 1), Sooner: row.minutes(f, 2),
				Turn: plan.Turn(row.text(3))}
		}
	}
	return home, away
}

// readPositions reads the positions, with what they are called.
func readPositions(p *sport.Sport, t *table) {
	for _, row := range t.rows() {
		p.Positions = append(p.Positions, row.text(0))
		if also := row.list(1); len(also) > 0 {
			p.Called[row.text(0)] = also
		}
	}
}

// readOwn reads the club's principles and the lines of its ground.
func readOwn(f *shell.Form, p *sport.Sport, read func(columns) *table) {
	for _, row := range read(principles).rows() {
		if _, err := check.ReadPrinciple(row.text(0)); err != nil {
			f.Refuse("sport", "%s", err)
		}
		p.Principles = append(p.Principles, sport.Principle{Words: row.text(0), Kind: plan.Kind(row.text(1))})
	}
	if len(p.Principles) > check.MostOwn {
		f.Refuse("sport", "a club has %d principles at most", check.MostOwn)
	}
	for _, row := range read(lines).rows() {
		metres, ok := p.System.ReadLength(row.text(1))
		if !ok {
			f.Refuse("sport", "line %s: write how far it is, such as 22 or 22 yd", row.text(0))
		}
		p.Lines = append(p.Lines, sport.Line{Name: row.text(0), Metres: metres, Also: row.list(2),
			Across: row.text(3) == ways[1].Value})
	}
}

// craft reads the routine of a position.
func (r tableRow) craft(f *shell.Form, drills *books.Book) sport.Craft {
	k := sport.Craft{Name: r.text(0), For: r.list(1), Priority: plan.Priority(r.text(3)), Phase: r.text(5),
		Zone: r.text(6), On: plan.Turn(r.text(7))}
	for _, name := range r.list(2) {
		code := name
		if d, ok := drills.Named(name); ok {
			code = d.Code
		}
		k.Drills = append(k.Drills, code)
	}
	if text := r.text(4); text != "" {
		n, err := strconv.Atoi(text)
		if err != nil || n < 1 || n > club.MaxLanes {
			f.Refuse("sport", "%s: %q is no number at once", k.Name, text)
		}
		k.Stations = n
	}
	return k
}

// ResetSport brings the sport back to how it came.
func (in Room) ResetSport(r *shell.Request) (shell.Answer, error) {
	return r.Saved(in.Books.ResetSport(r.Context(), r.By), "The sport is as it came", "/sport", shell.Gone)
}

// minutes reads a whole number of minutes; empty is 0.
func (r tableRow) minutes(f *shell.Form, column int) int {
	text := r.text(column)
	if text == "" {
		return 0
	}
	n, err := strconv.Atoi(text)
	if err != nil {
		f.Refuse("sport", "%s: %q is no whole number of minutes", r.text(0), text)
	}
	return n
}
