package say

import "cuestart/core/pattern"

// placeName is a place, or one of a side: left, left touch.
const placeName = `[a-z-]+(?: (?:touch|wing|corner|post|box|hand|foot|back)\b)?`

// The patterns of doses: a number is num or dec, a tilde a run of spaces.
var (
	tempoOf   = pattern.Must(`(?i)(?:tempo )?\b(\d{1,2})-(\d{1,2})-(\d{1,2})(?:-(\d{1,2}))?\b(?: tempo)?`)
	boxOf     = Spaced(`(?:\b|,~)` + num + `~counts?~each\b`)
	restAfter = Spaced(`\b(?:with~)?(?:a~)?` + dec +
		`~(s|secs?|seconds?|min|minutes?)?~(?:of~)?(?:rest|pause|break)(?:~between(?:~sets)?)?\b`)
	restOf = Spaced(`\b(?:rest|pause)~(?:of~|for~)?` + dec +
		`~(secs?|seconds?|s|minutes?|min)?\b(?:~between(?:~sets)?)?`)
	exactOf   = Spaced(`\b(?:exactly|exact|as written|no more,? no less)\b`)
	percents  = pattern.Must(`(?i)(?:\bat |@ ?)?\b(\d{1,3} ?%?(?:(?:, ?and |, ?| and | then | to |/|-)\d{1,3} ?%?)*) ?(?:%|per ?cent)(?: effort| speed)?`)
	flatOut   = Spaced(`\b(?:at~)?(?:flat out|full effort|full speed|full pace|full gas|all out|max effort|maximal effort)\b`)
	pairwise  = Spaced(`\b(?:in|as|by)~(?:pairs|twos)\b|\beach pair\b|\ba pair\b`)
	breathsOf = Spaced(`\b` + num + `~(?:deep~|slow~|long~|easy~|full~)?breaths?\b`)
	timesOf   = Spaced(`\b` + num + `~(?:x|times)~`)
	sidesOf   = Spaced(`\b(?:a|each|per|every|both|either|on each|on both|to each|on the)~(?:side|sides|leg|legs|arm|arms|foot|feet|hand|hands|shoulder|hip|ankle|knee|calf|wrist|lead legs?)\b|\b(?:both|each)~lead~legs?\b|\b(?:left and right|right and left|left, right|both sides|l/r|e/s)\b`)
	ownSide   = Spaced(`\b(?:own|strong|preferred|good|throwing|kicking|dominant)~(?:side|foot|hand|leg|arm)(?:~only)?\b`)
	waysOf    = Spaced(`\b(?:each|both|either|per)~(?:way|ways|direction|directions)\b|\bin~(?:both|each)~directions?\b|\bclockwise and (?:anti|counter)-?clockwise\b`)
	toAndFro  = Spaced(`\b` + num + `~(?:forwards?|forward)~(?:and|,)~(?:\d{1,3}~)?(?:back|backwards?|backward)\b`)
	inAllOf   = Spaced(`\b(?:in all|in total|total|altogether|all told|all in)\b`)
	ladderOf  = pattern.Must(`(?i)\b(\d{1,3}(?:(?:,? |, ?)\d{1,3})+) (?:to|at|from|in|into|on)? ?((?:the )?[a-z-]+(?:(?:, and |, ?| and | )[a-z-]+)+)`)
	cellsOf   = pattern.Must(`(?i)((?:\x02.|[a-z-]+)(?:(?: and | |/)[a-z-]+)*) x ([a-z-]+(?:(?: and | |/)[a-z-]+)*)`)
	eachOf    = pattern.Must(`(?i)\b` + num + `(?: ?(?:a cell|each|tries each|apiece|of each|every time)\b)`)
	eachFirst = Spaced(`\b(?:twice|once)~each\b`)
	pairList  = pattern.Must(`(?i)(?:^|[ ,:\x01])((?:\d{1,3}|one|two|three|four|five|six|seven|eight|nine|ten) (?:to |at |from |in )?(?:the )?` +
		placeName +
		`(?:(?:, ?and |, ?| and | )(?:\d{1,3}|one|two|three|four|five|six|seven|eight|nine|ten) (?:to |at |from |in )?(?:the )?` +
		placeName + `)+)`)
	onePair  = pattern.Must(`(?i)` + num + ` (?:to |at |from |in )?(?:the )?(` + placeName + `)`)
	slashed  = pattern.Must(`(?i)([a-z-]+(?: [a-z-]+)?(?: ?/ ?[a-z-]+(?: [a-z-]+)?){1,9})`)
	manyFrom = Spaced(`\b` + num +
		`~from~(?:the~)?((?:[a-z-]+)(?:(?:, and the |, and |, the |, | and the | and )[a-z-]+)+)`)
	fromList = pattern.Must(`(?i)\b(?:from|to|at|off)[ \x01]+(?:the )?([a-z-]+(?:(?:, and |, ?| and )[a-z-]+)+)`)

	setsTimed = Spaced(`\b` + num + `~x~` + num + `~x~` + dec +
		`~(secs?|seconds?|s|minutes?|min)\b(?:~holds?)?(?:~each)?`)
	timed = Spaced(`\b` + num + `~(?:x|times|sets of|holds of|holds|efforts of|bursts of|goes of)~(?:of~)?` +
		dec + `~(secs?|seconds?|s|minutes?|mins?)\b(?:~holds?)?(?:~each)?`)
	lengthsOf = Spaced(`\b` + num +
		`~(?:x|times|lengths?(?: of)?|trips?(?: of)?|runs?(?: of)?|lots of|laps of)~(?:a~)?` + dec +
		`~(?:m|metres?|meters?|yards?|yds?)\b`)
	setsOf     = Spaced(`\b` + num + `~(?:x|sets? of|times|lots of|rounds of)~` + num + `\b(?:~(?:` + repWords + `))?`)
	metresOf   = Spaced(`\b(?:over~|of~|for~)?` + dec + `~(?:m|metres?|meters?|yards?|yds?)\b`)
	backAndOut = Spaced(`\b(?:` + num +
		`~(?:x~|times~)?)?(?:there and back|to the line and back|down and back|out and back|up and back|up and down|across and back|over and back)\b(?:~(twice|once|` +
		num + `~(?:x|times)))?`)
	lengths = Spaced(`\b` + num +
		`~(?:x~)?(?:lengths?|trips?|laps?|widths?|half courts?|courts?|half lengths?|crossings?|shuttles?)\b(?:~of the (?:pitch|court|hall|field|pool|rink|gym))?`)
	shareOf     = Spaced(`\b(?:over~|for~)?(?:a~)?(half|third|full|whole)~(?:of~)?(?:the~|a~)?(?:length|width|court|pitch|field|rink|hall)\b`)
	sideToSide  = Spaced(`\b(?:side to side|sideline to sideline|touch to touch)\b`)
	eachTimed   = Spaced(`\b` + dec + `~(secs?|seconds?|s)~each\b`)
	overHurdles = Spaced(`\b(?:over~)?` + num + `~(?:mini-?|low~|small~)?hurdles$`)
	letterList  = pattern.Must(`(?:^|[ ,\x01])([A-Z](?:(?:, ?and |, ?| and | ?/ ?|-)[A-Z]\b)+)`)
	ofEach      = Spaced(`\b` + num + `~(?:of each|each letter|each|ea)\b`)
	holdFor     = Spaced(`\b(?:holds?|holding|held)~(?:it~|for~|of~|each~)*` + dec +
		`~(secs?|seconds?|s|minutes?|mins?)\b`)
	heldFor   = Spaced(`\b` + dec + `~(secs?|seconds?|s|minutes?|mins?)~(?:a~)?(?:holds?|held)\b`)
	clockTime = pattern.Must(`\b(\d{1,2}):(\d\d)\b(?: ?min(?:utes?)?)?`)
	minSec    = Spaced(`\b(\d{1,3})~(?:mins?|minutes?)~(?:and~)?(\d{1,2})(?:~(?:s|secs?|seconds?))?\b`)
	plainTime = Spaced(`\b(?:for~)?` + dec +
		`~(?:(1/2)~)?(minutes?|mins?|secs?|seconds?|s|')(?:$|[^\w]|\b)(?:~each)?`)
	aMinute     = Spaced(`\b(?:for~)?(half a minute|a minute and a half|one and a half minutes|a minute|a min|half a min|a couple of minutes|couple of minutes)\b`)
	repsOf      = Spaced(`\b` + num + `~(?:` + repWords + `)\b`)
	spacedSteps = pattern.Must(`\b[3-9]\d(?: (?:[4-9]\d|100))+ ?%`) // "50 70 90 %"
	onceTwice   = Spaced(`\b(once|twice)\b`)
	leadNumber  = pattern.Must(`(?i)^[ ,\x01]*` + num + `(?: x)?[ \x01]+([a-z].*)$`)
	numberHow   = pattern.Must(`(?i)([ ,\x01])` + num +
		`[ \x01]+(slow|slowly|smooth|controlled|easy|gentle|gently|fast|quick|quickly|big)[ \x01.]*(,|;|$)`)
	lastNumber = pattern.Must(`(?i)[ ,\x01]` + num + `(?: each)?[ \x01.]*(?:,|;|$)`)
	afterFirst = Spaced(`\b(?:first|last|next|opening|final|the) (?:one|two|three|four|five|six|seven|eight|nine|ten|\d{1,2})\b(?: (?:minutes?|seconds?|metres?|balls?|passes|points?|phases?|plays?|overs?))?`)
	eachEnd    = Spaced(`\beach~(?:,|$)`)
	ownFirst   = Spaced(`\b(?:own|strong|weak|left|right) (?:side|foot|hand|leg|arm) first\b`)
	everyWhere = Spaced(`\bin all directions\b`)
	timesLast  = Spaced(`\bx~` + num + `\b`)
	countOf    = Spaced(`(?:\bhold~)?(?:for~)?(?:(?:a|the)~)?\bcount of~` + num)
	setsReach  = Spaced(`\b` + num + `~(?:-|to|or)~` + num + `~(?:x~\d|sets\b)`)
	setsLast   = Spaced(`\b` + num + `~sets\b`)
	perPlace   = Spaced(`\b` + num +
		`~(?:a|per|each|at each|from each|to each|in each) (?:box|spot|place|cell|station|basket|target|corner|end|post|goal|wing|mark|cone|base)\b`)
	numberPair = Spaced(`\b` + num + `~(?:in pairs|in twos|each pair|a pair)\b`)
	atLeast    = Spaced(`\b(?:at least|no less than|not less than|minimum|min of)~` + num +
		`(?:~(secs?|seconds?|s|minutes?|mins?|min))?\b`)
	reach     = pattern.Must(`(?:\b|x)(\d{1,3})(?:-| to )(\d{1,3})\b( ?(?:m|s|sec|secs|seconds|min|minutes|reps|each|a|per)\b|[ ,]|$)`)
	bareSteps = pattern.Must(`,[ \x01]*(\d{2,3}(?:(?:, ?and |, ?| and )\d{2,3})+)[ \x01]*(?:,|$)`)
	atSteps   = pattern.Must(`(?i)\b(?:at|@) ?(\d{2,3}(?:(?:, ?and |, ?| and )\d{2,3})+) ?(?:[,;(]|$)`)
	metreList = pattern.Must(`(?i)\b(\d{1,3} ?m?(?:(?:, ?and |, ?| and |/)\d{1,3} ?m?)+)(?: ?(?:m|metres)\b)`)
)
