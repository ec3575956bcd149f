package plan

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
)

// SetFixed changes a fixed event, or adds it where its id is "".
func (d *Document) SetFixed(f Fixed) (string, error) {
	if problem := NameProblem(f.Name); problem != "" {
		return "", In("fixed", "%s", problem)
	}
	if d.Nobody(f.Who) {
		return "", In("fixed", "say whom it holds")
	}
	start, err := d.Start.Resolve()
	if err != nil {
		return "", In("start", "%s", err)
	}
	if window, err := f.Span.Window(start); err != nil || window.To <= window.From {
		return "", In("fixed", "it ends before it starts")
	}
	if f.ID == "" {
		for n := len(d.Fixed) + 1; f.ID == "" || d.Event(f.ID) != nil; n++ {
			f.ID = fmt.Sprintf("fixed-%d", n)
		}
		d.Fixed = append(d.Fixed, f)
		return f.Name + " added", nil
	}
	known := d.Event(f.ID)
	if known == nil {
		return "", In("fixed", "this is no longer in the plan")
	}
	*known = f
	return f.Name + " changed", nil
}

// ShiftFixed moves the beginning and the end of a fixed event by so many seconds, later where
// they are positive. What was said on the clock stays so, to the minute.
func (d *Document) ShiftFixed(id string, from, to int) (string, error) {
	known := d.Event(id)
	if known == nil {
		return "", In("fixed", "this is no longer in the plan")
	}
	start, err := d.Start.Resolve()
	if err != nil {
		return "", In("start", "%s", err)
	}
	f := *known
	for _, edge := range []struct {
		at *clock.Moment
		by int
	}{{&f.Span.From, from}, {&f.Span.To, to}} {
		at, err := edge.at.Offset(start)
		if err != nil {
			return "", In("fixed", "%s", err)
		}
		if moved := start.Add(time.Duration(int(at)+edge.by) * time.Second); edge.at.Clock != "" {
			*edge.at = clock.AtClock(moved.Add(30 * time.Second).Format("15:04"))
		} else {
			edge.at.Before -= edge.by
		}
	}
	if _, err := d.SetFixed(f); err != nil {
		return "", err
	}
	return fmt.Sprintf("%s %s to %s", f.Name, momentWords(f.Span.From), momentWords(f.Span.To)), nil
}

// RemoveFixed takes a fixed event out.
func (w *Work) RemoveFixed(id string) (string, error) {
	i := slices.IndexFunc(w.Fixed, func(f Fixed) bool { return f.ID == id })
	if i < 0 {
		return "", In("fixed", "this is no longer in the plan")
	}
	name := w.Fixed[i].Name
	w.Fixed = slices.Delete(w.Fixed, i, i+1)
	w.Unlink()
	return name + " taken out", nil
}

// SetLate says by how many seconds a player comes late; 0: in time.
func (d *Document) SetLate(player string, seconds int) (string, error) {
	p := d.Player(player)
	if p == nil {
		return "", In("players", "this player is not in the plan")
	}
	if problem := lateProblem(seconds); problem != "" {
		return "", In("players", "%s", problem)
	}
	p.Late = seconds
	if seconds == 0 {
		return p.ShortName() + " is in time", nil
	}
	return fmt.Sprintf("%s comes at %s", p.ShortName(), d.Arrival(p)), nil
}

// SetOver says whether a player who comes late works on over the drink and the line-up,
// up to the start.
func (party *Party) SetOver(player string, over bool) (string, error) {
	p := party.Player(player)
	if p == nil {
		return "", In("players", "this player is not in the plan")
	}
	p.Over = over
	if over {
		return p.ShortName() + " works on until the start", nil
	}
	return p.ShortName() + " lines up with the others", nil
}

// SetOut takes a player out of the plan, of its units and of blocks of their own.
func (d *Document) SetOut(player string) (string, error) {
	p := d.Player(player)
	if p == nil {
		return "", In("players", "this player is not in the plan")
	}
	if len(d.Players) == 1 {
		return "", In("players", "nobody would be left")
	}
	name := p.ShortName()
	is := func(id string) bool { return id == player }
	d.Players = slices.DeleteFunc(d.Players, func(p Player) bool { return p.ID == player })
	for i := range d.Units {
		d.Units[i].Players = slices.DeleteFunc(d.Units[i].Players, is)
	}
	d.Restrictions = slices.DeleteFunc(d.Restrictions, func(r Restriction) bool { return r.Player == player })
	for b := range d.AllBlocks() {
		if len(d.Members(b.Who)) > 0 {
			b.Who = slices.DeleteFunc(b.Who, is)
		}
		delete(b.Choices, player)
		for n := range b.Groups {
			b.Groups[n] = slices.DeleteFunc(b.Groups[n], is)
		}
	}
	said := name + " is out"
	for _, gone := range d.DropEmpty() {
		said += "; " + gone + " too"
	}
	d.Fixed = slices.DeleteFunc(d.Fixed, func(f Fixed) bool { return d.Nobody(f.Who) })
	d.Unlink()
	return said, nil
}

// DropEmpty takes out the blocks that nobody of today is in, and writes down that the
// plan goes without them. It returns their names.
func (d *Document) DropEmpty() (gone []string) {
	var all []Block
	for b := range d.AllBlocks() {
		all = append(all, *b)
	}
	for _, b := range all {
		if d.Nobody(b.Who) {
			d.Remove(b.ID)
			gone = append(gone, b.Name)
		}
	}
	if len(gone) > 0 {
		d.Note(strings.Join(gone, ", ") + ": nobody for it today")
	}
	return gone
}

// Note writes down how the plan was fitted to its day, each sentence once; the newest stay where
// there are too many.
func (t *Told) Note(sentences ...string) {
	for _, s := range sentences {
		if letters := []rune(s); len(letters) > maxNote {
			s = string(letters[:maxNote-1]) + "…"
		}
		if !slices.Contains(t.Notes, s) {
			t.Notes = append(t.Notes, s)
		}
	}
	t.Notes = t.Notes[max(0, len(t.Notes)-mostNotes):]
}

// SeenNotes forgets the notes: the coach knows.
func (t *Told) SeenNotes() (string, error) {
	t.Notes = nil
	return "notes are read", nil
}
