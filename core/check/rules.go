package check

import (
	"cuestart/core/drill"
)

// Rules are all checks, the gravest kinds first. Thresholds that are a coach's
// taste are named below.
var Rules = []Rule{
	{ID: rulingRule, Severity: Stop, Why: "Medical staff's ruling goes before any plan", find: restriction},
	{ID: "pin", Severity: Stop, Why: "What is set to a minute has to be possible then", find: pins},
	{ID: "leader-busy", Severity: Stop, Why: "A leader leads one block at a time, while they are there",
		find: leaderBusy},
	{ID: "place-busy", Severity: Stop, Why: "A place has room for so many, while it is free", find: placeBusy},
	{ID: "zone-full", Severity: Stop, Why: "More people than the place holds", find: zoneFull},
	{ID: "partner-busy", Severity: Stop, Why: "A block needs all of its people at once", find: partnerBusy},
	{ID: "impossible", Severity: Stop, Why: "What must be done has to fit into the time there is", find: impossible},
	{ID: "deep-cold", Severity: Stop,
		Why: "Too early for deep, static or near-maximal work: they are still cold (Jeffreys 2007)", find: deepCold},
	{ID: "static-long",
		Severity: Stop,
		Why: "60 s or more of static stretch on one muscle costs power (Behm et al. 2016): it belongs after " +
			"the session",
		find: staticLong},
	{ID: "junior-collision", Severity: Stop, Why: "No heavy contact for juniors before a match", find: juniorCollision},
	{ID: "wet-jumps", Severity: Stop, Why: "Jumps need even, dry ground", find: wetJumps},
	{ID: "static-last", Severity: Warn, Why: "Static holds need dynamic work after them (Behm & Chaouachi 2011)",
		find: staticLast},
	{ID: "no-step", Severity: Warn, Why: "Effort rises by steps, 70 then 80 then 90 per cent, before it is full",
		find: noStep},
	{ID: "no-full", Severity: Warn, Why: "Otherwise the first full effort comes in the match (Bishop 2003)",
		find: noFull},
	{ID: "sharp-early", Severity: Warn, Why: "What sharpens wears off: hard work ends within 15 minutes of being due",
		find: sharpEarly},
	{ID: "hard-early", Severity: Warn, Why: "Hard work more than 20 minutes out: warm too soon, then cooling",
		find: hardEarly},
	{ID: "cool-start", Severity: Warn,
		Why:  "Below 2 °C over rest at the start is not warm yet (Mohr et al. 2004); an estimate",
		find: coolStart},
	{ID: "cooling", Severity: Warn,
		Why:  "A body loses about half of its warmth in 15 idle minutes, more in the cold (Mohr et al. 2004)",
		find: cooling},
	{ID: "missed-must", Severity: Warn, Why: "Whoever misses most of a must needs a catch-up of their own",
		find: missedMust},
	{ID: "too-long", Severity: Warn, Why: "A long warm-up tires and bores (Silva et al. 2018)", find: tooLong},
	{ID: "contacts", Severity: Warn, Why: "Few contacts, each of full quality", find: tooManyContacts},
	{ID: "sprint-metres", Severity: Warn, Why: "Sprints before a match prepare, they do not train",
		find: tooManySprints},
	{ID: "ground-time", Severity: Warn, Why: "Lying down cools: no more than a third of the work on the ground",
		find: groundTime},
	{ID: "one-side", Severity: Warn, Why: "Both sides get used in the game", find: oneSide},
	{ID: "arm-pump", Severity: Warn, Why: "Arms pumped right before throwing miss", find: armPump},
	{ID: "queue", Severity: Warn, Why: "Standing in queues: more than half of the drill is waiting", find: queue},
	{ID: "kit-short", Severity: Warn, Why: "There is less kit than the group needs", find: kitShort},
	{ID: "no-fitting", Severity: Warn, Why: "A drill that wants a wall is done where there is one", find: noFitting},
	{ID: "too-far", Severity: Warn, Why: "A lane is only as long as the place", find: tooFar},
	{ID: "partner", Severity: Warn, Why: "Somebody named for it is not here today", find: partner},
	{ID: "no-drink", Severity: Warn, Why: "At 30 °C and more, a drink stop every 10 minutes", find: noDrink},
	{ID: "wet-ground", Severity: Warn, Why: "On wet ground, do standing versions", find: wetGround},
	{ID: "end-range", Severity: Warn, Why: "A hypermobile player needs control, not more range", find: endRange},
	{ID: "due-late", Severity: Warn, Why: "Whoever is in action at the first second needs 3 minutes of calm",
		find: dueLate},
	{ID: "margin", Severity: Warn, Why: "Players leave, drink, change and line up: 3 to 10 minutes", find: margin},
	{ID: "grid-untried", Severity: Warn, Why: "A skilled player wants every place tried before it counts",
		find: gridUntried},
	{ID: orderRule, Severity: Note, Why: "The phases build on each other; your order stands until you change it",
		find: order},
	{ID: "empty-station", Severity: Note, Why: "Every station has a group that begins there", find: emptyStation},
	{ID: "no-leader", Severity: Note, Why: "Blocks without a leader drift", find: noLeader},
	{ID: "above-level", Severity: Note, Why: "Meant for players of a higher level", find: aboveLevel},
	{ID: "acts", Severity: Note, Why: "A few tries sharpen a skill, many tire it", find: acts},
	{ID: "plane", Severity: Note, Why: "The sport moves in every plane", find: plane},
	{ID: "joint", Severity: Note, Why: "The sport stresses this joint", find: joint},
	{ID: "no-aim", Severity: Note, Why: "Nobody knows why it is there: give each block an aim", find: noAim},
	{ID: "same-again", Severity: Note, Why: "The same every week gets boring", find: sameAgain},
	{ID: "two-changes", Severity: Note, Why: "Change one thing at a time, or you cannot tell what helped",
		find: twoChanges},
}

// QueueLeast is how many seconds of waiting in a drill nobody minds.
const QueueLeast = 30

// What a coach may see otherwise; defaults.
const (
	sharpWithin  = 15 * 60 // seconds before due
	hardWithin   = 20 * 60 // seconds before due
	idleTooLong  = 5 * 60  // seconds, once warm
	calm         = 180     // seconds before the start, for who is in action first
	pumpClear    = 5 * 60  // seconds between arm work and throwing
	actsShare    = 0.7     // of the acts asked for, below which they are too few
	actsAtMost   = 40      // of one kind, by one player
	sameTooOften = 6       // times running: no more is read of what came before
)

// caps are what one player should carry before a match, by grade.
var caps = map[drill.Grade]struct{ minutes, contacts, sprintMetres int }{
	drill.Junior: {15, 40, 60},
	drill.Club:   {25, 80, 120},
	drill.Elite:  {25, 100, 160},
}

func (in *Input) grade() drill.Grade {
	if _, known := caps[in.Document.Grade]; known {
		return in.Document.Grade
	}
	return drill.Club
}

// planes are those that every sport moves in.
var planes = []string{"front", "side", "turn"}
