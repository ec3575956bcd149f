package hear

import (
	"slices"
	"strconv"
	"strings"

	"cuestart/core/pattern"
)

// role is what a piece of a line can be.
type role int

const (
	roleNone     role = iota
	roleCount         // so many, of whatever the movement counts
	roleSets          // sets or rounds
	roleTimes         // x 4, twice
	roleSetsReps      // 3 x 8
	roleSide          // each leg
	roleWays          // each way, all four ways
	roleParts         // 10 left, 10 right
	roleTime          // a length of time
	roleHeld          // a length of time in a position: hold 5 s, count of ten
	roleBreaths
	roleOnOff // 20 s on, 10 off
	roleRest
	roleTrips  // 3 x 20 m
	roleMetres // a length
	roleApart  // 10 m apart
	roleLine   // to the box
	roleBack   // and back
	roleLengths
	roleLaps
	roleEfforts
	roleDegrees // 6 at 60 %, 3 flat out
	roleTempo
	roleEvery
	roleWho
	roleLeader
	rolePlace
	roleAt
	roleFrom
	roleUntil // 40 to 32
	roleDone  // done by 35
	roleLast  // the last five minutes
	roleFirst // the first five minutes
	roleBefore
	roleAfter
	roleStraight
	roleEach
	roleLoad  // 4 kg
	roleOwn   // the throwing arm
	roleRungs // so many from each of several distances
	roleFiller
)

// mark is a piece of a line that one role explains.
type mark struct {
	role     role
	from, to int // words
	n, least float64
	sets     float64
	list     []float64
	text     string
	noun     int // the word behind the one that says what is counted; 0: none
	weight   float64
}

// wording is a way in which something is said: over the words in their one form.
type wording struct {
	role    role
	re      *pattern.Pattern
	weight  float64 // beside a point for each word it explains
	numeral bool    // it begins with a number
	read    func(g []string, m *mark) bool
}

// Pieces of patterns: N is a number, R one or a range, D a length of time, S a side, U the
// end of a piece.
var pieces = strings.NewReplacer(
	"«N»", `(\d+(?:\.\d+)?)`,
	"«R»", `(?:(\d+) (?:-|to|or) )?(\d+)`,
	"«D»", `((?:a min and a half|half a min|half min|a min|\d+ and a half min|\d:\d\d|\d+ min \d+ s|\d+ min [1-5][05]|\d+ (?:-|to|or) \d+ (?:s|min)|\d+(?:\.\d+)? (?:s|min)))`,
	"«L»", `(?:m|yd|ft|km)`,
	"«P»", `(?:side|leg|arm|hand|foot|shoulder|hip|knee|ankle|wrist|elbow|thigh|calf|glute|quad|heel|corner|end|box|basket|goal|wall|spot|wing|alley|flank|diagonal|court)`,
	"«W»", `(?:forward|forwards|backward|backwards|back|in|out|inside|outside|inwards|outwards|up|down|clockwise|anticlockwise|anti-clockwise|counterclockwise|counter-clockwise|across|high|low|front|left|right|middle|centre|center|over|under)`,
)

// The order in which they are written does not matter: all that fit compete.
var wordings = []wording{
	// How many.
	say(roleSetsReps, 3, `«N» (?:x|by|sets? of|set of|round of|sets x) «R»(?: (?:reps?|rep))?`,
		func(g []string, m *mark) bool {
			m.sets, m.least, m.n = num(g[1]), num(g[2]), num(g[3])
			return m.sets <= 12 && m.n > 0 && m.n <= 200
		}),
	say(roleSetsReps, 3, `«R» (?:rep )?x «N» (?:set|round)s?`, func(g []string, m *mark) bool {
		m.least, m.n, m.sets = num(g[1]), num(g[2]), num(g[3])
		return true
	}),
	say(roleSetsReps, 3, `«R» rep x «N»`, func(g []string, m *mark) bool {
		m.least, m.n, m.sets = num(g[1]), num(g[2]), num(g[3])
		return true
	}),
	say(roleSets, 2, `«R» (?:set|round|circuit|series)(?: of| x)?`,
		func(g []string, m *mark) bool { m.least, m.n = num(g[1]), num(g[2]); return true }),
	say(roleTime, 3, `x «D»`, func(g []string, m *mark) bool { m.least, m.n = span(g[1]); return true }),
	say(roleTimes, 2, `x «R»(?: time| goes)?`, func(g []string, m *mark) bool {
		m.least, m.n = num(g[1]),
			num(g[2])
		return true
	}),
	say(roleTimes, 1.5, `«R» (?:x|time|goes|go)`, func(g []string, m *mark) bool {
		m.least, m.n = num(g[1]),
			num(g[2])
		return true
	}),
	say(roleTimes, 2, `(?:done )?(once|twice|thrice|twice over|two times)(?: each| through)?`,
		func(g []string, m *mark) bool {
			m.n = map[string]float64{"once": 1, "twice": 2, "thrice": 3, "twice over": 2}[g[1]]
			return true
		}),
	say(roleCount,
		0, `(?:only |just |do |at least |up to |max |)«R»(?: ?ish| or so| of (?:them|those|these|em|'em)| in all| total| tops| max| more| will do|)`,
		func(g []string, m *mark) bool {
			m.least, m.n = num(g[1]), num(g[2])
			if strings.HasPrefix(g[0], "at least") {
				m.least = m.n
			}
			if strings.HasPrefix(g[0], "up to") || strings.Contains(g[0], "them") || strings.Contains(g[0], "those") ||
				strings.HasSuffix(g[0], "ish") || strings.HasPrefix(g[0], "at least") {
				m.weight += 2
			}
			return m.n >= 1 && m.n <= 200
		}),
	say(roleCount,
		1.2, `«R» (?:rep|goes|go|balls?|strokes?|hits?|touches|tries|try|swings?|serves?|shots?|throws?|passes|kicks?|catches|hops?|jumps?|lifts?|turns?|pushes|hurdles?|lunges?|contacts?|blocks?|makes|puts|plays?|points?|rallies|rally|overs?|deliveries|looks|phases|buckets|goals|attempts|taps|steps?)`,
		func(g []string, m *mark) bool {
			m.least, m.n = num(g[1]), num(g[2])
			return m.n >= 1 && m.n <= 200
		}),
	say(roleCount, 2, `(?:a (couple|dozen)(?: of)?|(half a dozen)|a (few))`, func(g []string, m *mark) bool {
		m.n = map[string]float64{"couple": 2, "dozen": 12, "": 3}[g[1]]
		if g[2] != "" {
			m.n = 6
		}
		return true
	}),
	say(roleRungs, 6, `(?:from )?(\d+(?:(?: ,| /| and| -|) \d+)+) «L»(?: x)?(?: «N»)?(?: of)?(?: each)?`,
		func(g []string, m *mark) bool {
			if m.n = num(g[2]); m.n == 0 {
				m.n = 1
			}
			for _, one := range strings.FieldsFunc(g[1],
				func(r rune) bool { return strings.ContainsRune(",/- and", r) }) {
				m.list = append(m.list, metres(one, g[0]))
			}
			return (m.n > 1 || strings.HasSuffix(g[0], "each")) && len(m.list) <= 8 && slices.IsSorted(m.list) &&
				(len(m.list) > 2 || strings.Contains(g[1], "and"))
		}),
	say(roleRungs,
		9, `(\d+ «L»(?:(?: ,| and| then|) \d+ «L»){1,})(?: ,| x| -| --|) «N» (?:of )?each(?: distance| one)?`,
		func(g []string, m *mark) bool {
			m.n = num(g[2])
			for w := range strings.FieldsSeq(g[1]) {
				if n := num(w); n > 0 {
					m.list = append(m.list, metres(w, g[0]))
				}
			}
			return m.n > 0 && len(m.list) <= 8
		}),
	say(roleRungs, 3, `(\d+ «L»(?:(?: ,| and| then|) \d+ «L»){2,})`, func(g []string, m *mark) bool {
		m.n, m.text = 1, "bare"
		for w := range strings.FieldsSeq(g[1]) {
			if n := num(w); n > 0 {
				m.list = append(m.list, metres(w, g[0]))
			}
		}
		return len(m.list) <= 8
	}),
	say(roleNone, 4, `(?:in )?(?:a )?(?:lanes?|lines?|queues?|files?) of (\d+)`, nil),
	say(roleNone, 5, `(?:till i |until i |i )?count (?:of |to )?(\d+) (?:then|and|before)(?: you)? [a-z]+`, nil),
	say(roleNone, 4, `(\d+) (?:catchers?|taggers?|chasers?|feeders?|floaters?|jokers?|neutrals?|bulldogs?|wolves|its)`,
		nil),
	say(roleNone, 2.5, `(?:45|90|180|360)`, func(_ []string, m *mark) bool { m.text = "angle"; return true }),
	say(roleNone, 6, `take a knee`, nil),
	say(roleNone, 4, `(?:(?:try|aim|go) for )?\d+ (?:in a row|straight|on the trot|without)`, nil),
	say(roleNone, 3.5, `[45] out`, func(_ []string, m *mark) bool { m.text = "named"; return true }),
	say(roleSide, 1, `both`, func(_ []string, m *mark) bool { m.n, m.text = 2, "both"; return true }),
	say(roleWays, 3, `(?:forehand|fh|overhand|overarm) (?:and|/|,|\+) (?:backhand|bh|underhand|underarm)`,
		func(_ []string, m *mark) bool { m.n, m.text = 2, "parts"; return true }),
	say(roleNone, 6, `\d{1,2} a side`, func(_ []string, m *mark) bool { m.text = "game"; return true }),
	say(roleNone,
		3.5, `«N» (?:man|men|ball|hand|foot|ft|touch|cone|corner|person|player|point|bounce|gate|star|step|hands|count|stick|puck|feet|footed|handed|legged|armed)`,
		func(_ []string, m *mark) bool {
			m.text = "named"
			return true
		}),
	// On which side, which way.
	say(roleSide,
		2, `(?:on |to |for |from |in |with |at |off |)(?:each|ea|per|a|an|/|either|every|both|e/|the other) «P»(?:s)?(?: each)?`,
		func(g []string, m *mark) bool {
			m.n = 2
			return !strings.Contains(g[0], "a box") && !strings.Contains(g[0], "a wall") &&
				!strings.Contains(g[0], "a hand") && !strings.Contains(g[0], "a corner") &&
				!strings.Contains(g[0], "a goal") || !strings.Contains(g[0], " a ")
		}),
	say(roleSide,
		2.5, `(?:from |on |at |off |to |)(?:each|ea|either|both|per) (?:block|elbow|post|sideline|touchline|baseline|pin|antenna|corridor)s?`,
		func(_ []string, m *mark) bool {
			m.n = 2
			return true
		}),
	say(roleSide, 2, `(?:then |and |on |)(?:the )?other (?:side|leg|arm|foot|hand|one)(?: too)?`,
		func(_ []string, m *mark) bool { m.n, m.text = 2, "other"; return true }),
	say(roleSide,
		2, `(?:(?:ea|e|p)/[a-z]+|l/r|r/l|b/s|ea|ea side|both sides|left and right|left / right|right and left|on both sides|both sides too)(?: of the body)?`,
		func(g []string, m *mark) bool {
			m.n = 2
			return true
		}),
	say(roleSide,
		2, `(?:then |and |, )*(?:swap|switch|change|repeat)(?: on)?(?: the)?(?: other)? (?:side|leg|arm|hand)s?(?: and repeat)?`,
		func(g []string, m *mark) bool {
			m.n = 2
			return true
		}),
	say(roleSide, 1.5, `(?:then |and )?(?:the )?same (?:on )?(?:the )?other (?:side|leg|arm|hand|way)`,
		func(g []string, m *mark) bool { m.n = 2; return true }),
	say(roleSide, 3, `(?:on )?(?:one|1) (?:leg|side|arm|foot|hand) (?:and |, )?then the other`,
		func(g []string, m *mark) bool { m.n = 2; return true }),
	say(roleSide, 2.5, `(?:and |, )?then (?:on )?the other(?: leg| side| arm| foot| hand| one)?`,
		func(_ []string, m *mark) bool { m.n = 2; return true }),
	say(roleWays, 3, `(?:look )?«W»(?:(?: ,| and| /)* (?:look )?«W»){2,}`, func(g []string, m *mark) bool {
		for _, w := range strings.Fields(g[0]) {
			if w != "look" && w != "," && w != "and" && w != "/" {
				m.n++
			}
		}
		m.text = "parts"
		return m.n <= 8
	}),
	say(roleWays,
		3, `(?:front|forward|forwards|fwd|straight|in)(?: [,/] (?:and )?(?:side|lateral|back|diagonal|rotational|rotate|across|behind|out|up)){2,}`,
		func(g []string, m *mark) bool {
			m.n, m.text = 1+float64(len(notLetters.FindAllString(g[0], -1))), "parts"
			return m.n <= 8
		}),
	say(roleWays, 2, `(?:each|ea|both|either|per|a) way(?: s)?|(?:both|either) directions?`,
		func(g []string, m *mark) bool { m.n = 2; return true }),
	say(roleWays, 2.5, `(?:in )?(?:all|each of the|each of|the) «N» (?:way|directions?|corners?)`,
		func(g []string, m *mark) bool { m.n = num(g[1]); return m.n <= 8 }),
	say(roleWays, 1.5, `(?:in )?«N» (?:way|directions)`, func(g []string, m *mark) bool {
		m.n = num(g[1])
		return m.n > 1 && m.n <= 8
	}),
	say(roleWays, 1, `(?:each |in each )direction`, func(g []string, m *mark) bool { m.n = 2; return true }),
	say(roleWays,
		2, `(?:forwards?|front|straight) (?:and|\+|/|,|then) (?:across|sideways|side to side|side|lateral|lat)`,
		func(g []string, m *mark) bool {
			m.n = 2
			return true
		}),
	say(roleWays, 1, `(?:forwards?|clockwise) and (?:backwards?|back|anticlockwise)`,
		func(g []string, m *mark) bool { m.n = 2; return true }),
	say(roleParts,
		3, `«N» (?:steps? |hits? |taps? |each )?(?:to the |on the |from the |off the |going |on |to |with the |)(left|right|strong|off|weak|dominant|preferred|forehand|backhand|good|bad|near|far|inside|outside)(?: hand| foot| leg| side| arm| knee down| wing| shoulder)?(?: ,| then| and| \+| --| /|)+ «N» (?:steps? |hits? |taps? )?(?:to the |on the |from the |off the |going |on |to |with the |)(left|right|strong|off|weak|dominant|preferred|forehand|backhand|good|bad|near|far|inside|outside)(?: hand| foot| leg| side| arm| knee down| wing| shoulder)?`,
		func(g []string, m *mark) bool {
			m.list, m.text = []float64{num(g[1]), num(g[3])}, "sides"
			return true
		}),
	say(roleParts,
		6, `(?:on |off |from |with |to )?(?:the )?(?:right|left)(?: hand| foot| leg| side| arm)? (?:x )?«N» (?:, |and |then )*(?:on |off |from |with |to )?(?:the )?(?:right|left)(?: hand| foot| leg| side| arm)? (?:x )?«N»`,
		func(g []string, m *mark) bool {
			m.list, m.text = []float64{num(g[1]), num(g[2])}, "sides"
			return strings.Contains(g[0], "right") && strings.Contains(g[0], "left")
		}),
	say(roleParts,
		3, `(?:right|left) (?:hand|foot|leg|side|arm) «N» (?:, |and )*(?:right|left) (?:hand|foot|leg|side|arm) «N»`,
		func(g []string, m *mark) bool {
			m.list, m.text = []float64{num(g[1]), num(g[2])}, "sides"
			return true
		}),
	say(roleParts, 3, `«N» / «N»`, func(g []string, m *mark) bool {
		m.list, m.text = []float64{num(g[1]), num(g[2])}, "sides"
		return num(g[1]) == num(g[2]) && num(g[1]) <= 30
	}),
	say(roleParts, 2, `«N» «N»`, func(g []string, m *mark) bool { // ten, ten
		m.list, m.text = []float64{num(g[1]), num(g[2])}, "sides"
		return g[1] == g[2] && num(g[1]) <= 30
	}),
	say(roleParts, 3, `«N» (?:and|\+) «N»`, func(g []string, m *mark) bool {
		m.list, m.text = []float64{num(g[1]), num(g[2])}, "sides"
		return num(g[1]) == num(g[2]) && num(g[1]) <= 30
	}),
	say(roleParts, 4, `«N» [a-z]+ to [a-z]+(?: ,| and| then| \+)+ «N» [a-z]+ to [a-z]+`,
		func(g []string, m *mark) bool {
			m.list = []float64{num(g[1]), num(g[2])}
			return true
		}),
	say(roleWays,
		2, `(?:fh/bh|bh/fh|forehand/backhand|fwd/bwd|fwd/bk|fwd/back|fwds/bwds|f/b|in/out|up/down|cw/ccw|forward/back|forward/backward|forwards/backwards|clockwise/anticlockwise|inwards/outwards)`,
		func(g []string, m *mark) bool {
			m.n = 2
			return true
		}),
	say(roleParts, 3, `«N» (?:going |circles )?«W»(?: ,| then| and| \+| /|)+ «N» (?:more |going )?«W»`,
		func(g []string, m *mark) bool { m.list = []float64{num(g[1]), num(g[2])}; return true }),
	say(roleParts,
		2, `«N» ([a-z]{2,})(?: [a-z]+){0,2} «N» ([a-z]{2,})(?: [a-z]+){0,2} «N» ([a-z]{2,})(?: side| hand| foot)?`,
		func(g []string, m *mark) bool {
			m.list = []float64{num(g[1]), num(g[3]), num(g[5])}
			at := func(w string) bool { return slices.Contains([]string{"in", "at", "from", "on", "off", "by"}, w) }
			return !at(g[2]) && !at(g[4]) && !at(g[6]) && !unitsOnly[g[2]] && !unitsOnly[g[4]] && !unitsOnly[g[6]] &&
				g[2] != "x" && g[2] != "to" && g[2] != "and" && g[4] != "x"
		}),
	say(roleParts,
		3, `«N» (?:in|from|at|on|off|to|with) (?:the )?[a-z]+(?: [a-z]+)?(?: \d)?(?: ,| and| then)+ «N» (?:in|from|at|on|off|to|with) (?:the )?[a-z]+(?: \d)?`,
		func(g []string, m *mark) bool {
			m.list = []float64{num(g[1]), num(g[2])}
			return true
		}),
	say(roleParts,
		6, `(?:from |at |in )?(?:the )?«N» (?:different )?(?:spots|places|corners|stations|positions|angles|points|zones|areas|heights|targets)(?: ,| x|) «N» (?:[a-z]+s )?(?:each|from each|at each|per spot|a spot)(?: spot| place| corner| one)?`,
		eachOf),
	say(roleParts,
		6, `(?:from |at |in )?«N» (?:different )?(?:spots|places|corners|positions|angles|targets)(?: ,|) x «N»`,
		eachOf),
	say(roleLoad, 5, `(?:turn|turning|look|looking|face|facing) both (?:ways|directions)`, nil),
	say(roleLoad,
		5, `(?:at|to|from|round|around|through|past|between) (?:the )?«N» (?:different )?(?:spots|targets|cones|gates|markers|poles|sticks|hoops|posts|baskets|corners|points|places|positions|angles|stumps|bases|flags|nets|goals|balls|players|people|defenders|feeders|servers|partners)`,
		nil),
	say(roleCount, 4, `(1) over (?:each|apiece|a piece)`, func(g []string, m *mark) bool { m.n = 6; return true }),
	say(roleCount, 4, `(?:«N» - )?«N» overs`, func(g []string, m *mark) bool { m.n = 6 * num(g[2]); return m.n <= 60 }),
	say(roleParts, 6, `«N» (?:each|per|a|at each|from each|in each) ([a-z]+)(?: ,| x|) «N» ([a-z]+)`,
		func(g []string, m *mark) bool {
			// 4 each routine, 3 routines
			m.text = "told"
			return g[2]+"s" == g[4] && m.times(num(g[1]), num(g[3]))
		}),
	say(roleParts,
		6, `«N» (?:1 (?:way|side|hand|foot|leg|arm)) (?:, |then |and )*«N» (?:on )?(?:the )?other(?: way| side| hand| foot| leg| arm)?`,
		func(g []string, m *mark) bool {
			m.list, m.text = []float64{num(g[1]), num(g[2])}, "sides"
			return g[1] == g[2]
		}),
	// How long.
	say(roleTime,
		6, `«D» (?:1 (?:way|side|hand|foot|leg|arm|direction)) (?:, |then |and )*«D» (?:on )?(?:the )?other(?: way| side| hand| foot| leg| arm| direction)?`,
		func(g []string, m *mark) bool {
			_, m.n = span(g[1])
			_, again := span(g[2])
			m.sets, m.text = 2, "told"
			return again == m.n
		}),
	say(roleTime, 5, `(?:left|right|l|r) «D» (?:, |and |then )*(?:left|right|l|r) «D»`, func(g []string, m *mark) bool {
		_, m.n = span(g[1])
		m.text = "sides"
		return g[1] == g[2]
	}),
	say(roleTime,
		5, `«D» (?:on the |to the )?(?:left|right|l|r)(?: side| leg| arm)? (?:, |and |then )*«N» (?:s |min )?(?:on the |to the )?(?:left|right|l|r)(?: side| leg| arm)?`,
		func(g []string, m *mark) bool {
			_, m.n = span(g[1])
			m.text = "sides"
			return strings.HasPrefix(g[1], g[2]+" ")
		}),
	say(roleTime, 4, `«D» [a-z]+ (?:, |and |then |/ )*«N» (?:s |min )?[a-záéíóúñ]+`, func(g []string, m *mark) bool {
		_, m.n = span(g[1])
		m.sets, m.text = 2, "told"
		return strings.HasPrefix(g[1], g[2]+" ") && !strings.Contains(g[0], " off") &&
			!strings.Contains(g[0], " rest") && !strings.Contains(g[0], " on ") && !strings.Contains(g[0], " between")
	}),
	say(roleTime,
		5, `«D» (?:, |and |then |-- )*(?:the |on the )?(?:other (?:way|direction|side|hand|foot|leg)|swap|switch|change|reverse)(?: direction| directions| sides?| hands?| feet| legs?| over| roles| ends| round| places| partners)? (?:, |and |then |for )*«D»`,
		func(g []string, m *mark) bool {
			_, m.n = span(g[1])
			m.sets, m.text = 2, "told"
			_, again := span(g[2])
			return again == m.n
		}),
	say(roleTime, 1, `(?:for |about )?«D»(?: of)?`, func(g []string, m *mark) bool {
		m.least,
			m.n = span(g[1])
		return m.n > 0
	}),
	say(roleTime, 4, `«N» (?:x|of|holds? of|lots of|sets of|set of|reps of|rep of|round of|rounds of) «D»`,
		func(g []string, m *mark) bool {
			m.sets = num(g[1])
			m.least, m.n = span(g[2])
			return m.sets <= 40
		}),
	say(roleTime, 4, `«D» x «N»`,
		func(g []string, m *mark) bool { m.least, m.n = span(g[1]); m.sets = num(g[2]); return m.sets <= 40 }),
	say(roleHeld,
		3, `(?:hold|holds|held|hold for|holding|hold it|stay|stick|stick it|stick for|pause|pause for|squeeze|squeeze for|freeze|freeze for|held for|keep)(?: it| each(?: one| rep)?| for| the landing)* «D»`,
		func(g []string, m *mark) bool {
			m.least, m.n = span(g[1])
			m.text = g[0]
			return true
		}),
	say(roleHeld,
		3, `(?:hold|holds|held|hold for|pause|pause for|squeeze|squeeze for)(?: it| each| for)* «N»(?: at the (?:top|bottom|end)| count)?`,
		func(g []string, m *mark) bool {
			m.n = num(g[1])
			return m.n <= 90
		}),
	say(roleHeld, 5, `(?:hold|squeeze) «N» x «N»`, func(g []string, m *mark) bool {
		m.n, m.sets = num(g[1]),
			num(g[2])
		return m.n <= 60 && m.sets <= 40
	}),
	say(roleHeld, 6, `(?:hold|freeze|stay)(?: the ball| it| still)? until(?: i| you| we)? count(?: of| to)? «N»`,
		func(g []string, m *mark) bool { m.n = num(g[1]); return m.n <= 60 }),
	say(roleHeld, 3, `«D» (?:hold|holds|iso|isos|squeeze|pause|hang)(?: at the (?:top|bottom|end))?`,
		func(g []string, m *mark) bool { m.least, m.n = span(g[1]); return true }),
	say(roleHeld, 3, `(?:for |to )?(?:a |the )?(?:slow )?count (?:of|to) «N»`,
		func(g []string, m *mark) bool { m.n = num(g[1]); return true }),
	say(roleHeld, 2.5, `«N» s? ?count(?:s)?(?: hold)?`, func(g []string, m *mark) bool {
		m.n = num(g[1])
		return true
	}),
	say(roleBreaths, 4, `«N» holds? of «N» breath`, func(g []string, m *mark) bool {
		m.sets, m.n = num(g[1]),
			num(g[2])
		return true
	}),
	say(roleBreaths,
		3, `(?:for |hold )?«N» (?:slow |deep |big |long |easy |full |calm |nice |good |proper )*breath(?: in)?`,
		func(g []string, m *mark) bool {
			m.n = num(g[1])
			m.text = g[0]
			return true
		}),
	say(roleOnOff, 8, `«D» on (?:, |/ |and )?«D» (?:off|rest)`,
		func(g []string, m *mark) bool { _, m.n = span(g[1]); _, m.least = span(g[2]); return true }),
	say(roleOnOff, 8, `«D» (?:on )?(?:, |/ |and )?«N» (?:s )?(?:off|rest)`,
		func(g []string, m *mark) bool { _, m.n = span(g[1]); m.least = num(g[2]); return true }),
	say(roleOnOff, 9, `«N» (?:x|rounds? of|sets? of) «D» ?(?:/|on|on /|on ,) «N»(?: s| min)?(?: off| rest| easy)?`,
		func(g []string, m *mark) bool {
			m.sets = num(g[1])
			_, m.n = span(g[2])
			m.least = num(g[3])
			return m.sets <= 40
		}),
	say(roleOnOff, 8, `«N» (?:s )?on (?:, |/ |and )?«N» (?:s )?(?:off|rest)`,
		func(g []string, m *mark) bool { m.n, m.least = num(g[1]), num(g[2]); return true }),
	say(roleOnOff, 8, `«D» (?:work |hard |, )+«D» (?:easy|rest|off)`,
		func(g []string, m *mark) bool { _, m.n = span(g[1]); _, m.least = span(g[2]); return true }),
	say(roleMetres, 1.5, `[1-9]00|1[0-9]00|2000`, func(g []string, m *mark) bool {
		m.n, m.text = num(g[0]),
			"bare"
		return true
	}),
	say(roleRest,
		4, `«D» (?:rest|break|pause|recovery|between|breather|off|in between|to recover)(?: between)?(?: each| sets?| set| reps?| rep| rounds?| round| goes| them| runs?)*`,
		func(g []string, m *mark) bool {
			_, m.n = span(g[1])
			return true
		}),
	say(roleRest, 5, `(?:and |then )?(?:give (?:them|us|everyone|everybody) |have |take )«D» (?:rest|break|breather)`,
		func(g []string, m *mark) bool { _, m.n = span(g[1]); return true }),
	say(roleRest,
		6, `(?:with |and |, )?(?:rest|recover|recovery|break)(?: for| of)? «D»(?: between)?(?: each| sets?| set| reps?| rep| goes)*`,
		func(g []string, m *mark) bool {
			_, m.n = span(g[1])
			return true
		}),
	say(roleRest,
		4, `(?:with |and )?(?:rest «N»|«N» rest|with «N» rest|rest of «N»|«N» off)(?: between)?(?: sets?| set)?`,
		func(g []string, m *mark) bool {
			m.n = num(g[1]) + num(g[2]) + num(g[3]) + num(g[4]) + num(g[5])
			return m.n >= 5 && m.n <= 600
		}),
	// How far.
	say(roleTrips, 4, `«N» (?:x|of|lots of|by) «N» «L»`, func(g []string, m *mark) bool {
		m.sets, m.n = num(g[1]),
			metres(g[2], g[0])
		return m.sets <= 40
	}),
	say(roleTrips, 4, `«N» «L» x «N»`, func(g []string, m *mark) bool {
		m.n, m.sets = metres(g[1], g[0]),
			num(g[2])
		return m.sets <= 40
	}),
	say(roleMetres, 2, `(?:over |for |about |on |out to |of |)«N» «L»(?: of each)?`,
		func(g []string, m *mark) bool { m.n = metres(g[1], g[0]); return m.n > 0.5 && m.n <= 5000 }),
	say(roleApart,
		4, `(?:about |from |at )?«N»(?: - \d+)? «L» (?:apart|away|off|back from|between|gap|in|from (?:the )?[a-z]+)`,
		nil),
	say(roleApart, 3, `(?:from) «N» «L»`,
		func(g []string, m *mark) bool { m.n = metres(g[1], g[0]); m.text = "from"; return true }),
	say(roleBack,
		3, `(?:there (?:and|then) back|up and (?:back|down)|down and (?:back|up)|out and (?:back|in)|over and back|back and (?:forth|forwards?)|down-and-backs?|there-and-backs?)(?: again)?`,
		nil),
	say(roleBack,
		3, `(?:and|/) (?:all the way |straight )?(?:back|home|return)(?: again| home| to the start| to start)?`, nil),
	say(rolePlace, 4, `(?:on|at|from|behind) the \d+ «L» line`, nil),
	say(roleBack, 4, `(?:out|up|down|there)(?: ,| and)? (?:\d+ )?(?:«L» )?back`, nil),
	say(roleLengths, 3, `«R» (?:length|width|shuttles?|trips?|runs?|crossings?)(?: of)?`,
		func(g []string, m *mark) bool {
			m.least, m.n = num(g[1]), num(g[2])
			// "6 run throughs"
			return m.n == 1 || strings.Contains(g[0], "length") || strings.Contains(g[0], "width") ||
				strings.Contains(g[0], "s")
		}),
	say(roleLengths, 2, `(?:a |1 )(?:length|width)(?: of)?`, func(g []string, m *mark) bool { m.n = 1; return true }),
	say(roleLaps,
		4, `«R» (?:easy |slow |light |nice |full |steady |gentle |good )*lap(?:(?: of| around| round)(?: the| our)? (?:pitch|field|court|courts|rink|hall|gym|track|ground|oval|park|pool|infield|outfield|diamond)| of| around| round)?`,
		func(g []string, m *mark) bool {
			m.least, m.n = num(g[1]), num(g[2])
			return m.n <= 40
		}),
	say(roleLaps,
		4, `(?:a )?(couple|few)(?: of)?(?: easy| slow| gentle)* lap(?:(?: of| around| round)(?: the| our)? (?:pitch|field|court|courts|rink|hall|gym|track|ground|oval|park|pool|infield|outfield|diamond)| of| around| round)?`,
		func(g []string, m *mark) bool {
			m.n = map[string]float64{"couple": 2, "few": 3}[g[1]]
			return true
		}),
	say(roleLaps,
		2, `lap(?: of| around| round) (?:the |our )?(?:pitch|field|court|courts|rink|hall|gym|track|ground|oval|park|pool|infield|outfield|diamond|boundary|rope|square)`,
		func(_ []string, m *mark) bool {
			m.n, m.text = 1, "bare"
			return true
		}),
	say(roleLaps, 6, `(?:a|«N») laps? and a half`, func(g []string, m *mark) bool {
		m.n = max(1, num(g[1])) + 0.5
		return true
	}),
	say(roleLaps, 6, `«N» and a half laps?`, func(g []string, m *mark) bool { m.n = num(g[1]) + 0.5; return true }),
	say(roleLaps,
		3, `(?:a|1) (?:easy |slow |full |big |gentle |steady )*lap(?:(?: of| around| round)(?: the| our)? (?:pitch|field|court|courts|rink|hall|gym|track|ground|oval|park|pool|infield|outfield|diamond)| of| around| round)?`,
		func(g []string, m *mark) bool {
			m.n = 1
			return true
		}),
	// How hard.
	say(roleEfforts,
		3, `(?:@ |at )?(\d{2,3}(?: percent)?(?: ?(?:/|,|-|and|then|to|) (?:then )?(?:\d{2,3}(?: percent)?|full|flat out|all out|max))+)(?: percent)?(?: effort| pace| speed)?`,
		func(g []string, m *mark) bool {
			m.list = efforts(g[1])
			steps := len(m.list) > 1 && (strings.Contains(g[0], "percent") || strings.Contains(g[1], "full") ||
				strings.Contains(g[1], "out") || strings.HasPrefix(g[0], "@") || rising(m.list))
			return steps
		}),
	say(roleEfforts,
		4, `(?:@ |at |from )?«N» (?:percent )?(?:up to|to|building to|going to) «N»(?: percent)?(?: effort| pace| speed)?`,
		func(g []string, m *mark) bool {
			m.list = []float64{num(g[1]) / 100, num(g[2]) / 100}
			return strings.Contains(g[0], "percent") && num(g[1]) >= 30 && num(g[1]) < num(g[2]) && num(g[2]) <= 110
		}),
	say(roleEfforts, 2.5, `(?:@ |at |up to |about )?«N» percent(?: effort| pace| speed| power| intensity)?`,
		func(g []string, m *mark) bool { m.list = []float64{num(g[1]) / 100}; return num(g[1]) <= 110 }),
	say(roleEfforts, 2, `(?:@|at) «N»`, func(g []string, m *mark) bool {
		m.list, m.weight = []float64{num(g[1]) / 100}, 0.5
		return num(g[1]) >= 40 && num(g[1]) <= 100
	}),
	say(roleEfforts,
		2, `(?:at |last one |)(flat out|full tilt|full speed|full pace|full power|full effort|full gas|all out|max effort|maximal|max|full|3 / 4(?: pace| speed| power| effort)?|(?:3|three|0.75) quarters?(?: pace| speed| power| effort)?|0.75 (?:pace|speed|power|effort)|half (?:pace|speed|power|effort)|0.5 (?:pace|speed|power|effort))`,
		func(g []string, m *mark) bool {
			m.list = []float64{effort(g[1])}
			return true
		}),
	say(roleDegrees,
		9, `(\d+ (?:[a-z]+s )?(?:(?:at|@) \d+(?: percent)?|flat out|full|all out|max)(?:(?: ,| then| and| /)* \d+ (?:[a-z]+s )?(?:(?:at|@) \d+(?: percent)?|flat out|full|all out|max))+)`,
		func(g []string, m *mark) bool {
			return degrees(g[1], m)
		}),
	say(roleTempo, 4, `(\d) ?- ?(\d) ?- ?(\d)(?: ?- ?(\d))?(?: tempo)?`, func(g []string, m *mark) bool {
		for _, one := range g[1:] {
			if one != "" {
				m.list = append(m.list, num(one))
			}
		}
		return true
	}),
	say(roleTempo, 4, `«N» (?:s )?(?:out|down|up|in)(?: ,| and)* «N» (?:s )?(?:held|hold|pause)`,
		func(g []string, m *mark) bool {
			m.list = []float64{num(g[1]), num(g[2])}
			return true
		}),
	say(roleEvery,
		3, `every (?:second|third|fourth|other|\d+(?:nd|rd|th)|2|3|4|whistle|clap|step)(?: step| s)?(?: step)?`,
		func(g []string, m *mark) bool {
			m.text = g[0]
			return true
		}),
	// When.
	say(roleUntil,
		4, `(?:from |between |\( ?)?(?:t- )?«N» ?(?:min )?(?:-|to|down to|until|til|and) (?:t- )?«N»(?: min)?(?: (?:out|to go|before))?(?: \))?`,
		func(g []string, m *mark) bool {
			m.n, m.least = num(g[1]), num(g[2])
			m.weight -= 3
			if strings.HasPrefix(g[0], "from") || strings.Contains(g[0], "down to") || strings.Contains(g[0], "to go") {
				m.weight += 3
			}
			return m.n > m.least && m.n <= 150
		}),
	say(roleAt, 3, `(?:at|@) (?:t- )?«N»(?: min)?(?: (?:out|to go|before|ish))?`,
		func(g []string, m *mark) bool { m.n = num(g[1]); return m.n <= 150 && m.n >= 1 }),
	say(roleAt,
		3, `(?:t- |t )?«N» (?:min )?(?:out|to go|before (?:to )?(?:ko|kick-off|kickoff|start|the start|throw-in|puck drop|tip-off|tip off|push off|push-off|pushback|push back|centre pass|the bell|the gun|the match|the game|the race|the heat|the final|face off|face-off|the bounce|kick off|throw in|warm up|warm-up|first [a-z]+|we start|the off))`,
		func(g []string, m *mark) bool {
			m.n = num(g[1])
			return m.n <= 150
		}),
	say(roleAt, 3, `(?:t- )?«N»(?: min)? before`, func(g []string, m *mark) bool {
		m.n, m.text = num(g[1]),
			"before"
		return m.n <= 150
	}),
	say(roleAt, 3, `«N»(?: min)? before (?:we|you|they|your|our|their|the) [a-z]+(?: [a-z]+)?`,
		func(g []string, m *mark) bool { m.n = num(g[1]); return m.n <= 150 && m.n >= 10 }),
	say(roleAt, 6, `(?:t- )?«N»(?: min)? before (?:so|and|but|cos|then)`,
		func(g []string, m *mark) bool { m.n = num(g[1]); return m.n <= 150 }),
	say(roleAt, 5, `(quarter of an|half an|1|an) hour (?:to go|out|before)`, func(g []string, m *mark) bool {
		m.n = map[string]float64{"q": 15, "h": 30, "1": 60, "a": 60}[g[1][:1]]
		return true
	}),
	say(roleAt, 3, `t- «N»`, func(g []string, m *mark) bool { m.n = num(g[1]); return m.n <= 150 }),
	say(roleFrom, 3, `from (?:t- )?«N»(?: min)?(?: (?:out|to go))?`,
		func(g []string, m *mark) bool { m.n = num(g[1]); return m.n <= 150 && m.n > 2 }),
	say(roleDone,
		5, `(?:all )?(?:done|finish|finished|off|out|over|in|back in|ready|ends?|end)(?: [a-z]+)? (?:by|at|before) (?:t- )?«N»(?: min)?(?: (?:out|to go))?`,
		func(g []string, m *mark) bool {
			m.n = num(g[1])
			return strings.Contains(g[0], "done") || strings.Contains(g[0], "finish") || strings.Contains(g[0], " by ")
		}),
	say(roleDone, 1, `by «N»(?: min)?`,
		func(g []string, m *mark) bool { m.n = num(g[1]); return m.n >= 3 && m.n <= 150 }),
	say(roleLast, 4, `(?:for )?(?:the |in the )?(?:last|final) «N» min`,
		func(g []string, m *mark) bool { m.n = num(g[1]); return true }),
	say(roleFirst, 4, `(?:for )?(?:the )?first «N» min`, func(g []string, m *mark) bool {
		m.n = num(g[1])
		return true
	}),
	say(roleNone, 3, `the first «N» min`, nil),
	say(roleStraight, 4, `(?:straight|right|directly|immediately) after (?:the )?([a-z' -]{3,30}?)`,
		func(g []string, m *mark) bool { m.text = g[1]; return true }),
	say(roleBefore, 2, `(?:before|until|til) (?:the )?([a-z][a-z' -]{2,40})`,
		func(g []string, m *mark) bool { m.text = g[1]; return !strings.HasPrefix(g[1], "so ") }),
	say(roleAfter, 2, `after (?:the )?([a-z][a-z' -]{2,30})`,
		func(g []string, m *mark) bool { m.text = g[1]; return true }),
	// What only begins a sentence, or ends one.
	say(roleWho, 4, `(?:year|yr|grade|under|u) \d+ ?s?(?: only)?`,
		func(g []string, m *mark) bool { m.text = g[0]; return true }),
	say(roleWho, 3, `(?:in|by) (?:pairs?|threes|fours|fives|twos|[2345] s|partners|small groups|groups)`,
		func(g []string, m *mark) bool { m.text = g[0]; return true }),
	say(roleLoad, 3, `«N» (?:kg|kgs|kilo|kilos|lb|lbs|cm|inch|inches|mm|bar|rpm|watts|watt|bpm|kph|mph)`, nil),
	say(roleNone, 3, `(?:part|phase|block|stage|station) \d`,
		func(g []string, m *mark) bool { m.text = "part"; return true }),
	say(roleLoad,
		4, `across the (?:«N» - «L» |«N» «L» )?(?:box|area|court|pitch|hall|gym|field|key|circle|goal|track|mat|pool|rink|ice|floor|lane|lanes|road|car park|\d\d)`,
		func(_ []string, m *mark) bool {
			m.text = "across"
			return true
		}),
	say(roleLoad, 4, `«N» (?:lines?|lanes?|groups?|teams?|queues?|files?) of «N»`, nil),
	say(roleLoad, 2.5, `(?:in )?«N» (?:lines|lanes|groups|teams|queues|files|waves|grids|squares)`,
		func(_ []string, m *mark) bool { m.text = "stand"; return true }),
	say(roleLoad, 5, `x «N» (?:grids|boxes|squares|pitches|courts|lanes|groups)`, nil),
	say(roleLoad, 3, `in «N» (?:lines?|lanes?|groups?|teams?|queues?|files?|waves?)`, nil),
	say(roleLoad, 3, `[123] touch(?:es)?(?: only| max)?`, nil),
	say(roleNone, 5, `on all (?:4 s|fours|4)`, nil),
	say(roleCount, 1.5, `«R» (?:[a-z]+ )?(?:ones|lots)`, func(g []string, m *mark) bool {
		m.least, m.n = num(g[1]),
			num(g[2])
		return true
	}),
	say(roleWho,
		3, `(?:the )?(?:front|back|second|middle|tight|top|bottom|outside|inside|first|full back|half back|full forward|half forward|full-back|half-back|full-forward|half-forward) (?:row|rows|[345]|half|halves|line|lines)(?: only)?`,
		func(g []string, m *mark) bool {
			m.text = g[0]
			return true
		}),
	say(roleWho, 3, `(?:no|number|nos|numbers) \d+(?:(?: ,| and| to| -| /)+ \d+)*`,
		func(g []string, m *mark) bool { m.text = g[0]; return true }),
	say(roleWho, 1, `\d+(?:(?: ,| and| to| -| / )+ \d+)* (?:and|/) \d+`,
		func(g []string, m *mark) bool { m.text = "numbers"; return true }),
	say(roleWho, 6, `for (?:nos? |numbers? |the )?\d+(?:(?: ,| and| /)+ \d+)+`,
		func(g []string, m *mark) bool { m.text = "for"; return true }),
	say(roleWho, 4, `\d+ s(?: ,| and| /) \d+ s`, func(g []string, m *mark) bool { m.text = "shirts"; return true }),
	say(roleWho, 4, `# \d+(?:(?: ,| and| to| /)* # \d+)*`, func(g []string, m *mark) bool {
		m.text = g[0]
		return true
	}),
	say(roleLoad, 4, `«N» turns? of «N»`, nil),
	say(roleFiller,
		2, `(?:so |and |then |and then )?(?:i|we|they|you) (?:always |usually |then |all |like to |just )?(?:do|start with|begin with|finish with|go with|go)(?: some)?`,
		nil),
	say(roleFiller,
		2, `(?:so |and |then |and then )?(?:its|that's|thats|here's|this is|we have|we've got|there's)(?: our| the| my| some)`,
		nil),
	say(roleFiller,
		3, `(?:after that |then |next |please |and )*(?:start|begin|finish|do|get|have|let|give|take|make) (?:them|us|everyone|everybody|the kids|the class|the girls|the boys|the lads|the team)(?: all)?(?: off)?(?: with| to do| to| do| doing|)`,
		nil),
	say(roleFiller,
		2, `(?:after that |then |next )(?:do|they do|you do|we do|it's|its|comes|come|go with|on to|onto)(?: the| a| some|)`,
		nil),
	say(roleFiller,
		2, `(?:(?:right|ok|okay|so|for|on|id|i'd|like|us|them|to|we|we'll|you|i|want|today|tomorrow|saturday|sunday|monday|tuesday|wednesday|thursday|friday|need|can|lets|let's|will|could|just|team) )+(?:start|begin|finish|end)(?: off)? with`,
		nil),
	say(roleFiller, 2, `(?:find|get) (?:a|your own|your) (?:space|spot|partner|place)(?: and do| and| then| do|)`, nil),
	say(roleFiller, 2, `(?:they|we|you) (?:can|could|should|all|then)(?: all)?(?: do| then|)`, nil),
	say(roleFiller, 2, `(?:right|ok|okay|alright|well|now then|next up|last thing|last one|finally) (?:,|:|--)`, nil),
	say(roleFiller,
		2, `(?:right|ok|okay|now|so|alright) (?:lads|guys|folks|girls|boys|team|everyone|all|ladies|gang|then)`, nil),
	say(roleEach, 0.5, `(?:of )?each`, nil),
	say(rolePlace, 3, `(?:court|pitch|lane|mat|field|rink|station|basket|net|pool|room|hall) \d`,
		func(g []string, m *mark) bool { m.text = g[0]; return true }),
	say(roleOwn,
		3, `(?:on |with |)(?:the |your )?(?:throwing|hitting|kicking|bowling|serving|racket|stick|shooting|top|lead|trail|good|bad) (?:arm|leg|foot|hand|side|shoulder)(?: only)?`,
		nil),
	say(roleFiller,
		1, `(?:ok|okay|so|first|now|next|then|and|finally|also|lastly|after that|just|lads|guys|folks|to start with|to start|to begin with|to begin|to finish|to finish off|again|first up|first off)(?: (?:so|first|now|next|then|and|finally|also|just|lads|guys|folks))*`,
		nil),
	say(roleLoad, 3, `(?:off|from|after|with|of) (?:a )?«N» (?:step|strides?|paces?)(?: run up| run-up| approach)?`,
		nil),
}

// eachOf counts as many of each of several spots, and tells of them.
func eachOf(g []string, m *mark) bool {
	m.text = "told"
	return m.times(num(g[2]), num(g[1]))
}

// mostTimes is how many parts of so many each a line says at most.
const mostTimes = 12

// times fills in so many of each of several parts; false where there are no several, or more than anybody says.
func (m *mark) times(each, parts float64) bool {
	if parts < 2 || parts > mostTimes {
		return false
	}
	m.list = slices.Repeat([]float64{each}, int(parts))
	return true
}

var notLetters = pattern.Must(`[,/]`)

// say makes a wording; read fills a mark in from what its groups matched, and may refuse.
func say(is role, weight float64, text string, read func(g []string, m *mark) bool) wording {
	text = pieces.Replace(text)
	begins := strings.HasPrefix(text, `(\d`) || strings.HasPrefix(text, `(?:(\d`)
	return wording{role: is, re: pattern.Must(`^(?:` + text + `)(?: |$)`), weight: weight, numeral: begins, read: read}
}

// marksOf are all pieces of words that some role explains; they overlap.
func marksOf(words []word) (all []mark) {
	text, starts := joined(words)
	var may []*wording // of this line
	for k := range wordings {
		if wordings[k].re.May(text) {
			may = append(may, &wordings[k])
		}
	}
	for i := range words {
		rest := text[starts[i]:]
		for _, p := range may {
			if p.numeral && !words[i].numeral {
				continue
			}
			at := p.re.FindStringSubmatchIndex(rest)
			if at == nil {
				continue
			}
			g := make([]string, len(at)/2)
			for n := range g {
				if at[2*n] >= 0 {
					g[n] = strings.TrimSpace(rest[at[2*n]:at[2*n+1]])
				}
			}
			to := i
			for end := starts[i] + len(strings.TrimRight(rest[:at[1]], " ")); to < len(words) &&
				starts[to] < end; to++ {
			}
			m := mark{role: p.role, from: i, to: to, weight: p.weight}
			if p.read != nil && !p.read(g, &m) || to == i {
				continue
			}
			all = append(all, m)
		}
	}
	return all
}

func num(text string) float64 {
	n, _ := strconv.ParseFloat(text, 64)
	return n
}

// span is a length of time in seconds; of a range the shorter too.
func span(text string) (least, most float64) {
	unit := 1.0
	if strings.Contains(text, "min") {
		unit = 60
	}
	switch {
	case text == "a min and a half":
		return 0, 90
	case strings.HasPrefix(text, "half"):
		return 0, 30
	case text == "a min":
		return 0, 60
	case strings.Contains(text, "and a half"):
		return 0, 60*num(strings.Fields(text)[0]) + 30
	}
	if m, s, clock := strings.Cut(text, ":"); clock {
		return 0, 60*num(m) + num(s)
	}
	f := strings.Fields(text)
	if len(f) == 3 && f[1] == "min" || len(f) == 4 && f[3] == "s" && f[1] == "min" {
		return 0, 60*num(f[0]) + num(f[2])
	}
	if len(f) == 4 {
		return unit * num(f[0]), unit * num(f[2])
	}
	return 0, unit * num(f[0])
}

// metres are so many of the unit that stands in a text.
func metres(n, text string) float64 {
	for unit, of := range map[string]float64{" yd": 0.9144, " ft": 0.3048, " km": 1000} {
		if strings.Contains(text, unit) {
			return of * num(n)
		}
	}
	return num(n)
}

// efforts are shares of full effort: "60 / 75 / 90 percent", "70 , 80 , full".
func efforts(text string) (list []float64) {
	for _, f := range strings.FieldsFunc(text, func(r rune) bool {
		return r == '/' || r == ',' || r == '-' || r == ' '
	}) {
		switch f {
		case "full", "flat", "all", "max":
			list = append(list, 1)
		default:
			if n := num(f); n >= 20 && n <= 110 {
				list = append(list, n/100)
			}
		}
	}
	return list
}

// rising tells whether shares of effort could be nothing else: tens or fives that rise.
func rising(list []float64) bool {
	if len(list) < 2 {
		return false
	}
	for i, e := range list {
		if n := int(100*e + 0.5); n%5 != 0 || n < 40 || n > 100 || i > 0 && e <= list[i-1] {
			return false
		}
	}
	return len(list) > 2 || list[1] >= 0.6
}

func effort(text string) float64 {
	switch {
	case strings.Contains(text, "quarter") || strings.Contains(text, "0.75") || strings.Contains(text, "3 / 4"):
		return 0.75
	case strings.Contains(text, "half") || strings.Contains(text, "0.5"):
		return 0.5
	}
	return 1
}

var degree = pattern.Must(`(\d+) (?:[a-z]+s )?(?:(?:at|@) (\d+)|(?:flat out|full|all out|max))`)

// degrees reads so many at each of several efforts: "6 at 60 percent , 3 flat out".
func degrees(text string, m *mark) bool {
	for _, g := range degree.FindAllStringSubmatch(text, -1) {
		m.n += num(g[1])
		e := 1.0
		if g[2] != "" {
			e = num(g[2]) / 100
		}
		if e > 1.1 || e < 0.2 {
			return false
		}
		m.list = append(m.list, e)
	}
	m.weight = 7 * float64(len(m.list)) // one that holds all goes before several
	return len(m.list) > 1
}
