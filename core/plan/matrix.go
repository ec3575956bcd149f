package plan

import (
	"fmt"
	"slices"
	"strings"
)

// Put puts players and units into a block, or takes them out; the others stay. Who is at it
// then is said as shortly as can be: everyone, units, and those who are left.
func (d *Document) Put(block string, who []string, in bool) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", ErrNoSuchBlock
	}
	those := d.Members(who)
	if len(those) == 0 {
		return "", In(AtBlock(block, "who"), "%q is nobody of this plan", strings.Join(who, ", "))
	}
	var members []string
	for _, p := range d.Members(b.Who) {
		if !slices.Contains(those, p) {
			members = append(members, p)
		}
	}
	if in {
		members = append(members, those...)
	}
	if len(members) == 0 {
		return "", In(AtBlock(block, "who"), "%s needs somebody: take the block out instead", b.Name)
	}
	b.Who = d.cover(members)
	way := "out of"
	if in {
		way = "into"
	}
	return fmt.Sprintf("%s %s %s", d.Audience(who), way, b.Name), nil
}

// cover is the shortest way to say who some players are: everyone, or the largest units of
// which all are among them, and single players.
func (party *Party) cover(members []string) (who []string) {
	if len(party.Members(members)) == len(party.Players) {
		return []string{Everyone}
	}
	units := slices.Clone(party.Units)
	slices.SortStableFunc(units,
		func(a, b Unit) int { return len(party.Members(b.Players)) - len(party.Members(a.Players)) })
	said := map[string]bool{}
	for _, u := range units {
		of := party.Members(u.Players)
		whole := !slices.ContainsFunc(of, func(p string) bool { return !slices.Contains(members, p) })
		more := slices.ContainsFunc(of, func(p string) bool { return !said[p] })
		if len(of) > 1 && whole && more {
			who = append(who, u.ID)
			for _, p := range of {
				said[p] = true
			}
		}
	}
	for _, p := range party.Members(members) {
		if !said[p] {
			who = append(who, p)
		}
	}
	return who
}
