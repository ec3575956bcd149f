package plan

import (
	"bytes"
	"encoding/json"
	"maps"
	"reflect"
	"slices"
)

// Clash is what two people changed differently at the same time.
type Clash struct {
	Where string // the place, as of a [Problem]; "" : of the plan itself
	Name  string // what it is called
}

// Insist has what both changed stay as mine.
const Insist = true

// Merge joins two versions of a document that were made from one, base: it has what either
// changed. Blocks, players and everything else that is listed under an id are taken whole.
// What both changed, each otherwise, is a clash, and stays as theirs, or with insist as
// mine. It fails where what comes of it is no document.
func Merge(base, mine, theirs *Document, insist bool) (*Document, []Clash, error) {
	mine = mine.renamed(base, theirs)
	m := merging{insist: insist}
	trees := make([]map[string]any, 3)
	for i, d := range []*Document{base, mine, theirs} {
		text, err := json.Marshal(d)
		if err != nil {
			return nil, nil, err
		}
		read := json.NewDecoder(bytes.NewReader(text))
		read.UseNumber()
		if err := read.Decode(&trees[i]); err != nil {
			return nil, nil, err
		}
	}
	text, err := json.Marshal(m.fields("", trees[0], trees[1], trees[2]))
	if err != nil {
		return nil, nil, err
	}
	merged := new(Document)
	if err := json.Unmarshal(text, merged); err != nil {
		return nil, nil, err
	}
	merged.Unlink()
	merged.Restrictions = slices.DeleteFunc(merged.Restrictions,
		func(r Restriction) bool { return merged.Player(r.Player) == nil })
	return merged, m.clashes, nil
}

// renamed is the document with other ids for the blocks and fixed events that it added, and
// whose ids the other version gave to something of its own.
func (d *Document) renamed(base, other *Document) *Document {
	taken := false
	for b := range d.AllBlocks() {
		taken = taken || base.Block(b.ID) == nil && other.Block(b.ID) != nil
	}
	for _, f := range d.Fixed {
		taken = taken || base.Event(f.ID) == nil && other.Event(f.ID) != nil
	}
	if !taken {
		return d
	}
	d = d.Clone()
	ids := map[string]string{}
	free := func(id string) string {
		for ids[id] = id; d.Block(ids[id]) != nil || d.Event(ids[id]) != nil || other.Block(ids[id]) != nil ||
			other.Event(ids[id]) != nil; {
			ids[id] += "x"
		}
		return ids[id]
	}
	for b := range d.AllBlocks() {
		if base.Block(b.ID) == nil && other.Block(b.ID) != nil {
			b.ID = free(b.ID)
		}
	}
	for i := range d.Fixed {
		if f := &d.Fixed[i]; base.Event(f.ID) == nil && other.Event(f.ID) != nil {
			f.ID = free(f.ID)
		}
	}
	relink(d, ids)
	return d
}

// relink has what names a block by an old id name it by its new one.
func relink(d *Document, ids map[string]string) {
	for i := range d.Said {
		for k := range d.Said[i].Parts {
			if to := ids[d.Said[i].Parts[k].Block]; to != "" {
				d.Said[i].Parts[k].Block = to
			}
		}
	}
	for b := range d.AllBlocks() {
		for i, id := range b.After {
			if to := ids[id]; to != "" {
				b.After[i] = to
			}
		}
		for _, link := range []*string{&b.Hold.Straight, &b.Hold.Before, &b.Hold.After} {
			if to := ids[*link]; to != "" {
				*link = to
			}
		}
	}
}

type merging struct {
	insist  bool
	clashes []Clash
}

// names are what the parts of a document are called that have no name of their own.
var names = map[string]string{"start": "the start", "open": "when work may begin",
	"margin": "how long before the start work ends", "slack": "the slack", "title": "the title",
	"place": "the place", "method": "the method", "today": "the day", "kit": "the kit", "turn": "how the day begins",
	"facing": "whom you meet", "bring": "what is carried out", "kept": "what is kept as is",
	"order": "the order of the blocks"}

// one merges a part of the document; nil: it is not there.
func (m *merging) one(key, name string, base, mine, theirs any) any {
	switch {
	case reflect.DeepEqual(mine, base) || reflect.DeepEqual(mine, theirs):
		return theirs
	case reflect.DeepEqual(theirs, base):
		return mine
	}
	if called := names[key]; name == "" && called != "" {
		name = called
	}
	m.clashes = append(m.clashes, Clash{key, name})
	if m.insist {
		return mine
	}
	return theirs
}

// fields merges objects field by field.
func (m *merging) fields(under string, base, mine, theirs map[string]any) map[string]any {
	keys := map[string]bool{}
	for _, tree := range []map[string]any{base, mine, theirs} {
		for key := range tree {
			keys[key] = true
		}
	}
	merged := map[string]any{}
	for _, key := range slices.Sorted(maps.Keys(keys)) {
		b, x, y := base[key], mine[key], theirs[key]
		var is any
		lb, lx, ly, listed := listsOf(b, x, y)
		both := !reflect.DeepEqual(x, b) && !reflect.DeepEqual(y, b)
		day, ofDay := days(key, b, x, y)
		switch {
		case key == ruled && !reflect.DeepEqual(y, b):
			is = y // who insists overrules no ruling
		case key == ruled:
			is = x
		case ofDay:
			is = m.fields(names[key], day[0], day[1], day[2])
		case key == said && both:
			is = joined(elements(b), elements(x), elements(y))
		case listed && both:
			is = m.list(key, lb, lx, ly)
		default:
			is = m.one(key, under, b, x, y)
		}
		if is != nil {
			merged[key] = is
		}
	}
	return merged
}

// days are three values of the day as it is, which is merged field by field: who says that it
// rains says nothing of the air.
func days(key string, values ...any) (list []map[string]any, ok bool) {
	for _, v := range values {
		is, ok := v.(map[string]any)
		if key != "today" || !ok {
			return nil, false
		}
		list = append(list, is)
	}
	return list, true
}

// said is the field of the words. Of two who wrote the words of both are kept, and what is no more in
// the plan is not shown with them.
const said = "said"

// elements are the elements of a list; none where the value is none.
func elements(value any) []any {
	list, _ := value.([]any)
	return list
}

// joined are their lines, and mine that are not of before.
func joined(base, mine, theirs []any) any {
	all := slices.Clone(theirs)
	has := func(list []any, one any) bool {
		return slices.ContainsFunc(list, func(other any) bool { return reflect.DeepEqual(one, other) })
	}
	for _, line := range mine {
		if !has(base, line) && !has(theirs, line) {
			all = append(all, line)
		}
	}
	return all
}

// ruled is the field of what medical staff ruled. It is taken whole, as it is by now.
const ruled = "restrictions"

// listsOf are three values as lists of things that can be told apart.
func listsOf(values ...any) (base, mine, theirs []any, listed bool) {
	lists := make([][]any, 3)
	for i, v := range values {
		list, ok := v.([]any)
		if !ok && v != nil {
			return nil, nil, nil, false
		}
		seen := map[string]bool{}
		for _, one := range list {
			id := idOf(one)
			if id == "" || seen[id] {
				return nil, nil, nil, false
			}
			seen[id] = true
		}
		lists[i] = list
	}
	return lists[0], lists[1], lists[2], true
}

// idOf tells an element of a list from the others; "": nothing does.
func idOf(one any) string {
	fields, ok := one.(map[string]any)
	if !ok {
		return ""
	}
	if rule, _ := fields["rule"].(string); rule != "" {
		where, _ := fields["where"].(string)
		return rule + " " + where
	}
	id, _ := fields["id"].(string)
	return id
}

func byID(list []any) (ids []string, of map[string]any) {
	of = map[string]any{}
	for _, one := range list {
		ids = append(ids, idOf(one))
		of[idOf(one)] = one
	}
	return ids, of
}

// list merges lists element by element. Those that mine moved or added stand after the one
// that they follow in mine.
func (m *merging) list(key string, base, mine, theirs []any) any {
	was, ofBase := byID(base)
	my, ofMine := byID(mine)
	their, ofTheirs := byID(theirs)
	movedByMe, movedByThem := moved(was, my), moved(was, their)
	order := slices.Clone(their)
	for i, id := range my {
		if ofTheirs[id] != nil && !movedByMe[id] {
			continue
		}
		if movedByMe[id] && movedByThem[id] && i > 0 {
			before := slices.Index(order, id) - 1
			if before >= 0 && order[before] == my[i-1] {
				continue // to the same place
			}
			if m.clash(key); !m.insist {
				continue
			}
		}
		order = slices.DeleteFunc(order, func(other string) bool { return other == id })
		at := 0
		for j := i - 1; j >= 0 && at == 0; j-- {
			at = slices.Index(order, my[j]) + 1
		}
		order = slices.Insert(order, at, id)
	}
	var merged []any
	for _, id := range order {
		name := ""
		for _, of := range []map[string]any{ofBase, ofMine, ofTheirs} {
			if fields, _ := of[id].(map[string]any); fields != nil && name == "" {
				name, _ = fields["name"].(string)
			}
		}
		if is := m.one(key+"."+id, name, ofBase[id], ofMine[id], ofTheirs[id]); is != nil {
			merged = append(merged, is)
		}
	}
	return merged
}

// clash notes that both moved things in a list, once.
func (m *merging) clash(key string) {
	one := Clash{key, names["order"]}
	if !slices.Contains(m.clashes, one) {
		m.clashes = append(m.clashes, one)
	}
}

// moved are the ids of both lists that stand elsewhere among the others: those outside a
// longest row that has the same order in both.
func moved(was, is []string) map[string]bool {
	length := make([][]int, len(was)+1)
	for i := range length {
		length[i] = make([]int, len(is)+1)
	}
	for i := len(was) - 1; i >= 0; i-- {
		for j := len(is) - 1; j >= 0; j-- {
			if length[i][j] = max(length[i+1][j], length[i][j+1]); was[i] == is[j] {
				length[i][j] = length[i+1][j+1] + 1
			}
		}
	}
	out := map[string]bool{}
	for _, id := range is {
		out[id] = slices.Contains(was, id)
	}
	for i, j := 0, 0; i < len(was) && j < len(is); {
		switch {
		case was[i] == is[j]:
			out[was[i]] = false
			i, j = i+1, j+1
		case length[i+1][j] >= length[i][j+1]:
			i++
		default:
			j++
		}
	}
	return out
}
