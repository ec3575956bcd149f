package shell

import "slices"

// Help says what is done on a page, in five lines at most.
type Help struct {
	Lines   []string
	Example string // a line as coaches of the club's sport write it; "": the page has no use for one
}

// helped is what is done on a page.
type helped struct {
	lines   []string
	example bool
}

// helps are the pages by the routes that lead to them.
var helps = map[string]helped{
	"/today": {lines: []string{
		"What comes next stands first: does its plan fit, and what should you look at.",
		"Press a session to open its plan, or New session to begin one.",
		"What is over and not written up yet waits here until you say how it went.",
		"Fixtures and weeks that repeat can be read in from a file.",
		"A session that you delete can be brought back at once."}},
	"/sessions/new": {lines: []string{
		"Say when it starts: everything is counted backwards from there.",
		"Begin from last time, from a routine, or empty with your own list.",
		"Say what the air is like: it changes how long they take to get warm.",
		"Who is out and who comes late can be said now or later.",
		"Nobody sees anything until you publish."}},
	"/sessions/:session": {example: true, lines: []string{
		"Over the plan: does it fit, and what should you do. Each has one press.",
		"Press a block to change who, where, led by and when, and its doses.",
		"Drag a block to move it, or its edge to do more or less.",
		"The tabs hold the people, the fixed times, the day, the kit and the lists.",
		"Write a block at the bottom as you say it:"}},
	"/sessions/:session/words": {example: true, lines: []string{
		"Paste the list that you have: a line for each drill, headings for blocks.",
		"Beside each line stands what it will be. What is underlined was understood.",
		"A question has answers to press; a drill that nobody knows is yours.",
		"Change a word and only that line is read again.",
		"A line may say who, where and how often:"}},
	"/sessions/:session/people": {lines: []string{
		"A row for each player, a column for each block.",
		"Press a place to put somebody in, or to take them out.",
		"What the physio has ruled is marked, and stays.",
		"Press a row or a column for all of it."}},
	"/sessions/:session/moment": {lines: []string{
		"Who stands where, at the minute that you choose.",
		"Step through the minutes, or let it play.",
		"A place with too many for its lanes is marked.",
		"Places stand as they lie on your ground."}},
	"/sessions/:session/what-if": {lines: []string{
		"See the plan with an earlier or later start, less time, or without somebody.",
		"What would be left out or shorter stands beside it.",
		"Nothing changes until you press to take it."}},
	"/sessions/:session/sheet": {lines: []string{
		"One page for your staff: by leader and by place. Print it or save it as a PDF.",
		"Cards: a small one for each player. Poster: one for the wall.",
		"It shows the plan as it is now, published or not.",
		"Black and white is enough: phases have a letter and a pattern."}},
	"/sessions/:session/links": {lines: []string{
		"Publish, and everybody has their own list on their phone; no account needed.",
		"Send the squad's link, or print the codes for the changing room.",
		"See who has opened it, and who has not.",
		"A link can be taken back; a new one is made.",
		"The wall link is for a screen that everybody sees."}},
	"/sessions/:session/log": {lines: []string{
		"How it went: it stands as it was planned and pressed. Change what was otherwise.",
		"Keep it with one press.",
		"What you write about a block is shown to you next time.",
		"Who was there counts for the week."}},
	"/log": {lines: []string{
		"What was done, session by session, newest first.",
		"Press one to see how it went, or to write it up.",
		"Compare before and after where one thing was changed."}},
	"/week": {lines: []string{
		"What the week has given so far, and what it still owes.",
		"The table has every kind of work by day; what is planned counts too.",
		"Choose a squad and a week above.",
		"Save it as a file for your own records."}},
	"/drills": {example: true, lines: []string{
		"Find a drill by its name, or by what it is for, where it works and what it needs.",
		"Press one for its dose, what to say, usual faults, easier and harder.",
		"A drill of your own is made by writing it down once.",
		"Print those that you see as a handout with figures.",
		"You can also just write it in a plan, as you say it:"}},
	"/routines": {example: true, lines: []string{
		"What you use again: a whole run-in, or a few drills for one person.",
		"New list: write it, name it, hand it out by link, on paper or step by step.",
		"Keep one from any plan, under The plan.",
		"A line is enough for a drill:"}},
	"/squad": {lines: []string{
		"Who plays where, who belongs to which unit, and who leads.",
		"Paste names, or read in a file.",
		"Only medical staff rule what a player may not do; a ruling goes into every plan.",
		"Say who is left-handed or left-footed: drills for one side follow.",
		"Tests and growth stand with each player."}},
	"/ground": {lines: []string{
		"The places that you warm up in: lanes, metres, hours, and whether there is a roof.",
		"Draw how they lie, so that walks are counted.",
		"Kit by kind and number: a plan says when it is short.",
		"A place that is taken at some hours says so here."}},
}

// help is what the page that was asked for says of itself.
func (r *Request) help() *Help {
	is, known := helps[r.gin.FullPath()]
	if !known {
		return nil
	}
	made := &Help{Lines: slices.Clone(is.lines)}
	if !is.example {
		return made
	}
	playbook, err := r.shell.Office.Books.Playbook(r.Context(), r.Club())
	if err != nil || len(playbook.Sport.Example) == 0 {
		return &Help{Lines: made.Lines[:len(made.Lines)-1]} // the last line leads to the example
	}
	made.Example = playbook.Sport.Example[len(playbook.Sport.Example)-1]
	return made
}
