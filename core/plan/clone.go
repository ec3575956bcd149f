package plan

import (
	"maps"
	"slices"

	"cuestart/core/drill"
)

// Clone is a deep copy of the document.
func (d *Document) Clone() *Document {
	c := *d
	c.Players, c.Kit = each(d.Players, func(p *Player) { p.Own, p.Forms = slices.Clone(p.Own), maps.Clone(p.Forms) }),
		maps.Clone(d.Kit)
	c.Units = each(d.Units, func(u *Unit) { u.Players = slices.Clone(u.Players) })
	c.Zones = each(d.Zones, func(z *Zone) {
		z.Free, z.Celsius, z.Fittings, z.Lies = slices.Clone(z.Free), pointed(z.Celsius), slices.Clone(z.Fittings),
			pointed(z.Lies)
	})
	c.Leaders = each(d.Leaders, func(l *Leader) { l.Free = slices.Clone(l.Free) })
	c.Fixed = each(d.Fixed, func(f *Fixed) { f.Who = slices.Clone(f.Who) })
	c.Restrictions = each(d.Restrictions, func(r *Restriction) { r.Spare = slices.Clone(r.Spare) })
	c.Blocks = each(d.Blocks, func(b *Block) { *b = b.Clone() })
	c.Due = each(d.Due, func(x *Due) { x.Who = slices.Clone(x.Who) })
	c.Facing, c.Bring = slices.Clone(d.Facing), slices.Clone(d.Bring)
	c.Lists = each(d.Lists, func(l *List) { l.Blocks = each(l.Blocks, func(b *Block) { *b = b.Clone() }) })
	c.Today.Celsius, c.Today.Off, c.Today.On = pointed(d.Today.Celsius), slices.Clone(d.Today.Off),
		slices.Clone(d.Today.On)
	c.Stresses, c.Exceptions, c.Notes = slices.Clone(d.Stresses), slices.Clone(d.Exceptions), slices.Clone(d.Notes)
	c.Said = each(d.Said, func(s *Said) {
		s.Parts = each(s.Parts, func(p *SaidPart) { p.Items = slices.Clone(p.Items) })
	})
	return &c
}

// Clone is a deep copy of the block.
func (b Block) Clone() Block {
	b.Who, b.After, b.Pin = slices.Clone(b.Who), slices.Clone(b.After), pointed(b.Pin)
	b.Hold = b.Hold.clone()
	b.Groups = each(b.Groups, func(g *[]string) { *g = slices.Clone(*g) })
	if b.Choices = maps.Clone(b.Choices); b.Choices != nil {
		for id, items := range b.Choices {
			b.Choices[id] = slices.Clone(items)
		}
	}
	b.Items = each(b.Items, func(i *Item) {
		i.Drill = i.Drill.Clone()
		for _, stand := range []**drill.Drill{&i.Easier, &i.Swap, &i.Harder} {
			if *stand != nil {
				*stand = pointed(*stand)
				**stand = (*stand).Clone()
			}
		}
	})
	return b
}

// each is a copy of a list in which deepen has copied what an element points to.
func each[T any](list []T, deepen func(*T)) []T {
	list = slices.Clone(list)
	for i := range list {
		deepen(&list[i])
	}
	return list
}

// pointed points to a copy of what p points to.
func pointed[T any](p *T) *T {
	if p == nil {
		return nil
	}
	copied := *p
	return &copied
}
