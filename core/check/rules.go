package check

import (
	"cuestart/core/drill"
)

// Rules are all checks, the gravest kinds first. Thresholds that are a coach's
// taste are named below.
var Rules = []Rule{
	{rulingRule, Stop, "Medical staff's ruling goes before any plan", restriction},
	{"pin", Stop, "What is set to a minute has to be possible then", pins},
	{"leader-busy", Stop, "A leader leads one block at a time, while they are there", leaderBusy},
	{"place-busy", Stop, "A place has room for so many, while it is free", placeBusy},
	{"zone-full", Stop, "More people than the place holds", zoneFull},
	{"partner-busy", Stop, "A block needs all of its people at once", partnerBusy},
	{"impossible", Stop, "The musts have to fit into the minutes there are", impossible},
	{"deep-cold", Stop, "Deep, static or near-maximal work comes after the body is warm (Jeffreys 2007)", deepCold},
	{"static-long",
		Stop, "60 s or more of static stretch on one muscle costs power (Behm et al. 2016): it belongs after " +
			"the session",
		staticLong},
	{"junior-collision", Stop, "No heavy contact for juniors before a match", juniorCollision},
	{"wet-jumps", Stop, "Jumps need even, dry ground", wetJumps},
	{"static-last", Warn, "Static holds need dynamic work after them (Behm & Chaouachi 2011)", staticLast},
	{"no-step", Warn, "Effort rises by steps, 70 then 80 then 90 per cent, before it is full", noStep},
	{"no-full", Warn, "Otherwise the first full effort comes in the match (Bishop 2003)", noFull},
	{"sharp-early", Warn, "What sharpens wears off: hard work ends within 15 minutes of being due", sharpEarly},
	{"hard-early", Warn, "Hard work more than 20 minutes out: warm too soon, then cooling", hardEarly},
	{"cool-start", Warn, "Below 2 °C over rest at the start is not warm yet (Mohr et al. 2004); an estimate",
		coolStart},
	{"cooling", Warn, "A body loses about half of its warmth in 15 idle minutes, more in the cold (Mohr et al. 2004)",
		cooling},
	{"missed-must", Warn, "Whoever misses most of a must needs a catch-up of their own", missedMust},
	{"too-long", Warn, "A long warm-up tires and bores (Silva et al. 2018)", tooLong},
	{"contacts", Warn, "Few contacts, each of full quality", tooManyContacts},
	{"sprint-metres", Warn, "Sprints before a match prepare, they do not train", tooManySprints},
	{"ground-time", Warn, "Lying down cools: no more than a third of the work on the ground", groundTime},
	{"one-side", Warn, "Both sides get used in the game", oneSide},
	{"arm-pump", Warn, "Arms pumped right before throwing miss", armPump},
	{"queue", Warn, "Standing in queues: more than half of the drill is waiting", queue},
	{"kit-short", Warn, "There is less kit than the group needs", kitShort},
	{"no-fitting", Warn, "A drill that wants a wall is done where there is one", noFitting},
	{"too-far", Warn, "A lane is only as long as the place", tooFar},
	{"partner", Warn, "Somebody named for it is not here today", partner},
	{"no-drink", Warn, "At 30 °C and more, a drink stop every 10 minutes", noDrink},
	{"wet-ground", Warn, "On wet ground, do standing versions", wetGround},
	{"end-range", Warn, "A hypermobile player needs control, not more range", endRange},
	{"due-late", Warn, "Whoever is in action at the first second needs 3 minutes of calm", dueLate},
	{"margin", Warn, "Players leave, drink, change and line up: 3 to 10 minutes", margin},
	{"grid-untried", Warn, "A skilled player wants every place tried before it counts", gridUntried},
	{orderRule, Note, "The phases build on each other; your order stands until you change it", order},
	{"empty-station", Note, "Every station has a group that begins there", emptyStation},
	{"no-leader", Note, "Blocks without a leader drift", noLeader},
	{"above-level", Note, "Meant for players of a higher level", aboveLevel},
	{"acts", Note, "A few tries sharpen a skill, many tire it", acts},
	{"plane", Note, "The sport moves in every plane", plane},
	{"joint", Note, "The sport stresses this joint", joint},
	{"no-aim", Note, "Nobody knows why it is there: give each block an aim", noAim},
	{"same-again", Note, "The same every week gets boring", sameAgain},
	{"two-changes", Note, "Change one thing at a time, or you cannot tell what helped", twoChanges},
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

func (r *reading) grade() drill.Grade {
	if _, known := caps[r.Document.Grade]; known {
		return r.Document.Grade
	}
	return drill.Club
}

// planes are those that every sport moves in.
var planes = []string{"front", "side", "turn"}
