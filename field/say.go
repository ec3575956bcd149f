package field

// say says in another language what a view tells in words.
func (v *View) say(told func(string) string) {
	v.StartName, v.Pace, v.Caution = told(v.StartName), told(v.Pace), told(v.Caution)
	for _, cards := range [][]Card{v.On, v.Next, v.Past, v.Left} {
		for i := range cards {
			cards[i].say(told)
		}
	}
	for i := range v.Events {
		v.Events[i].Name, v.Events[i].Who = told(v.Events[i].Name), told(v.Events[i].Who)
	}
	for i := range v.Idle {
		v.Idle[i].Who, v.Idle[i].Next, v.Idle[i].Warm = told(v.Idle[i].Who), told(v.Idle[i].Next), told(v.Idle[i].Warm)
	}
	each(v.Different, told)
	for i := range v.Disputes {
		v.Disputes[i].Says = told(v.Disputes[i].Says)
	}
	for i := range v.Lists {
		v.Lists[i].Name, v.Lists[i].Line = told(v.Lists[i].Name), told(v.Lists[i].Line)
	}
	for i := range v.Places {
		v.Places[i].Name = told(v.Places[i].Name)
	}
}

func (c *Card) say(told func(string) string) {
	for _, text := range []*string{&c.Name, &c.Who, &c.Where, &c.Length, &c.Waits, &c.Then, &c.List} {
		*text = told(*text)
	}
	each(c.Others, told)
	each(c.Own, told)
	for i := range c.Drills {
		d := &c.Drills[i]
		d.Name, d.Dose, d.Say, d.Look, d.Caution = told(d.Name), told(d.Dose), told(d.Say), told(d.Look),
			told(d.Caution)
		each(d.Columns, told)
		for n := range d.Rows {
			d.Rows[n].Name = told(d.Rows[n].Name)
		}
	}
}

// each says each of several texts.
func each(texts []string, told func(string) string) {
	for i := range texts {
		texts[i] = told(texts[i])
	}
}
