package hear

import (
	"math"
	"slices"
	"strings"
	"unicode"
)

// Words with which a cue begins, and which stand in what people tell rather than do.
var (
	cueFirst = strings.Fields(`every keep no not don't dont do never if when while as until till so that this it they swap switch change alternate alternating
		land look eyes chest head heads hips hip elbow elbows knee knees feet foot toes toe back arms arm hands hand ball all both same
		slow slowly easy nice light big soft quiet loose tall low long full good proper hard fast quick high up down off on over under in out
		at from with without by for to the your their my his her facing holding walk walking finish get stay stop breathe breath reach drive push pull
		squeeze stick stand sit relax build easy-does-it own any anywhere everyone only just plus rest water drink then and or but second third last first other
		one two free easy-peasy outside inside opposite chucking calling ready next catch-up let lets let's try call shout count chat talk use bring leave wear put take
		whatever whoever whistle game race between before after than like left right focus think throwing hitting kicking arriba abajo despacio suave rápido sin`)
	tells = strings.Fields("we've you've they've i've we'd we'll got haven't you your you're youre we we're " +
		"were i i'm im me us is are was isn't isnt can can't cant will won't wont dont don't should somebody " +
		"someone anyone nobody please pls remember nb forget listen lives belongs tonight tomorrow sorry " +
		"thanks there's theres it's its he she they who'll who don't bajando subiendo")
	preps = strings.Fields("off on over under in out at from with without by for to through around round " +
		"holding facing against before after while until till if every using off chucking behind along across " +
		"inside outside near beside between edge vs sin desde contra hacia")
	natural = strings.Fields("full half low high big small slow easy loose tall soft quiet hard fast nice good " +
		"full long short wide")
	body = strings.Fields("hips hands feet knees arms legs chest head eyes elbows toes heels shoulders back")
)

// Whether words are the first that are done, or later ones.
const first, later = true, false

// name is how well words from to could be what is done, best trimmed: the part that is the
// name, and its score.
func (h *parted) name(c *chunk, first bool) (from, to int, score float64) {
	best, tried := h.tried[c.from]
	if !tried {
		best.from, best.to, best.score = h.trim(c)
		if h.tried == nil {
			h.tried = map[int]trimmed{}
		}
		h.tried[c.from] = best
	}
	score = best.score
	if first {
		score += 1.5
	}
	if c.after == "(" || c.after != "or" && (h.is(c.to, "if", "when", "unless") || h.is(best.to, "if", "unless")) &&
		!first {
		score -= 4
	}
	return best.from, best.to, score
}

// trimmed is the part of a chunk that is best as a name.
type trimmed struct {
	from, to int
	score    float64
}

// longestName is of how many words what is done may be called.
const longestName = 12

// trim tries every way to cut a chunk to a name.
func (h *marked) trim(c *chunk) (from, to int, score float64) {
	from, to, score = c.from, c.from, math.Inf(-1)
	for a := c.from; a < c.to && a <= c.from+6; a++ {
		if a > c.from+4 && !h.is(a-1, "its") {
			continue
		}
		if a > c.from && h.is(a-1, "and", "+", "/") {
			continue
		}
		if a > c.from && !(h.agents(c.from, a) && h.acts(a, c.to)) && !h.Person(strings.ToLower(h.text(c.from, a))) &&
			!h.people(c.from, a) && !h.does(c.from, a) && (!h.is(a-1, "its") || h.is(c.from, "if", "when", "while")) &&
			!h.whereFor(c.from, a, c.to) {
			continue
		}
		for b := min(c.to, a+longestName); b > a; b-- {
			if b < c.to && !h.parts(a, b) {
				continue
			}
			if s := h.nameScore(a, b, c); s > score {
				from, to, score = a, b, s
			}
		}
	}
	return from, to, score
}

// whereFor tells whether words before a name only say where somebody goes for it: "to the far hoop for drop
// steps".
func (h *lexed) whereFor(from, a, to int) bool {
	return h.is(a-1, "for") && a-1 > from && h.Moves(strings.ToLower(h.text(a, to))) &&
		!h.Moves(strings.ToLower(h.text(from, a-1)))
}

// parts tells whether a name may end before word b: a preposition or a cue follows.
func (h *lexed) parts(a, b int) bool {
	w := h.words[b].is
	if h.is(b-1, "the", "a", "an", "your", "to", "from") { // "sets to the outside pin"
		return false
	}
	if (w == "up" || w == "down") && b+1 < len(h.words) && h.words[b+1].is == "the" {
		return true
	}
	if h.onKit(b) && !h.Moves(strings.ToLower(h.text(a, b))) { // "quads on the roller"
		return false
	}
	if slices.Contains(preps, w) {
		if h.is(b, "with") && (h.is(b+1, "partner", "pairs") || h.is(b+2, "partner")) {
			return true
		}
		return w != "with" && w != "to" && w != "in" || !h.Moves(h.text(b, min(len(h.words), b+3)))
	}
	if slices.Contains(natural, w) && b+1 < len(h.words) && slices.Contains(body, h.words[b+1].is) {
		return true
	}
	if w == "first" && h.numeral(b+1) {
		return false
	}
	return slices.Contains([]string{"no", "keep", "hands", "eyes", "easy", "all", "alternating", "facing", "cos",
		"because", "cause", "so", "first", "which", "only"}, w)
}

// onKit tells whether words from a preposition on are of kit without which it is another thing.
func (h *sentence) onKit(i int) bool {
	if !h.is(i, "on", "with", "over") {
		return false
	}
	if i++; h.is(i, "the", "a") {
		i++
	}
	return h.is(i, "roller", "foam", "bike", "rower", "erg", "ergs", "treadmill", "ski-erg")
}

func (h *marked) nameScore(a, b int, c *chunk) float64 {
	text := strings.ToLower(h.text(a, b))
	s, known := 0.0, 0
	if h.Moves(text) && !h.movesBehind(a, b, text) || sided(h.words[a:b]) {
		s += 4
	}
	if (groupLike(h.words[a:b]) || h.Person(text)) && !h.Known(text) {
		s -= 5
	}
	if sided(h.words[a:a+1]) && b-a > 1 && slices.Contains(preps, h.words[a+1].is) {
		// "4v4 in the half nearest the dugout"
		s -= 3
	}
	if h.Known(text) {
		s += 3
	}
	for i := a; i < b; i++ {
		w := h.words[i].is
		if h.Word(w) {
			known++
		}
		if slices.Contains(tells, w) {
			s -= 2
		}
		if h.words[i].numeral && !strings.Contains(w, "/") {
			s--
		}
	}
	s += 2 * float64(known) / float64(b-a)
	s -= h.begun(a, b, text)
	s -= h.goesOn(a, b, text)
	if sided(h.words[a:a+1]) || b-a == 3 && h.words[a].numeral && h.is(a+1, "a") && h.is(a+2, "side") {
		s += 4
	}
	if groupLike(h.words[a:a+1]) && b-a > 1 && !h.Known(text) {
		s -= 3
	}
	s -= 0.6 * float64(max(0, b-a-4))
	// what is left behind the name is a cue: a word each costs a little, so that a name stays whole
	s -= 0.3 * float64(min(3, c.to-b))
	return s - h.tooLong(a, b, text)
}

// goesOn weighs words within a name at which it usually ends.
func (h *lexed) goesOn(a, b int, text string) (less float64) {
	for i := a + 1; i < b; i++ {
		if slices.Contains(endsName, h.words[i].is) && !h.Known(text) && !h.numeral(i+1) {
			less += 1.5
		}
		if i+1 < b && h.is(i, "at") && h.words[i+1].numeral { // "ER at 90"
			less += 3
		}
	}
	return less
}

// movesBehind tells whether all that moves in a name is told of where something is: "balls off the keeper's
// kick".
func (h *lexed) movesBehind(a, b int, text string) bool {
	if h.Known(text) {
		return false
	}
	for i := a + 1; i+1 < b; i++ {
		if h.is(i, "off", "from", "after") && h.is(i+1, "the", "a", "your", "their", "our") {
			return !h.Moves(strings.ToLower(h.text(a, i)))
		}
	}
	return false
}

// begun is what it costs a name that it begins as what people are told does.
func (h *marked) begun(a, b int, text string) float64 {
	if strings.HasSuffix(h.words[a].is, "ing") && a+1 < b && h.is(a+1, "the", "your", "both") && !h.leads(a) {
		// swinging the arms
		return 4
	}
	switch leads := h.leads(a) && b-a > 1; {
	case h.Known(text) && (b-a > 1 || h.leads(a)), !slices.Contains(cueFirst, h.words[a].is):
		return 0
	case leads && slices.Contains(natural, h.words[a].is) && h.Word(h.words[a+1].is):
		return 0
	case leads && (slices.Contains(natural, h.words[a].is) || slices.Contains(body, h.words[a].is) || h.is(a, "ball")):
		return 1
	}
	return 4
}

// tooLong is what it costs a name that it holds where something is done, or with what.
func (h *lexed) tooLong(a, b int, text string) (s float64) {
	for i := a + 1; i+1 < b; i++ { // where it is done is told beside what it is called
		if slices.Contains(preps, h.words[i].is) && !h.is(i, "to") &&
			(h.is(i+1, "the", "your", "a", "their") || h.is(i, "against")) && !h.Known(text) && !h.onKit(i) &&
			(h.vocabulary(a, i) || h.movesBehind(a, b, text)) {
			s += 2
			break
		}
	}
	if i := h.placedFrom(a, b); i > a && !h.Known(text) && (i-a > 1 || h.Moves(strings.ToLower(h.text(a, i))) ||
		h.vocabulary(a, i)) {
		s += 3
	}
	for i := a + 1; i+1 < b; i++ { // egg beater, hands up
		if slices.Contains(body, h.words[i].is) && h.is(i+1, "up", "down", "high", "low", "out", "tall", "still",
			"apart", "together", "quiet", "soft") && !h.Known(text) && h.vocabulary(a, i) {
			s += 2
			break
		}
	}
	for i := a + 1; i+1 < b; i++ { // Simon says, with jumps, hops and star shapes
		if h.is(i, "with") && !h.Known(text) && (h.is(i+1, "partner", "pairs") || h.is(i+2, "partner") ||
			b-i > 4 && i-a > 1) {
			s += 3
			break
		}
	}
	// a name that ends in "with a shuttle" is longer than it need be
	for i := a + 1; i < b; i++ {
		if slices.Contains(preps, h.words[i].is) && h.Moves(h.text(a, i)) && b-i > 2 {
			s += 0.5 * float64(b-i)
			break
		}
	}
	return s
}

// placedFrom is the word from which a name only says where it is done: "mini tennis inside the service boxes"; a
// where it does not.
func (h *sentence) placedFrom(a, b int) int {
	if !slices.Contains(places, strings.TrimSuffix(h.words[b-1].is, "s")) && !slices.Contains(places, h.words[b-1].is) {
		return a
	}
	for i := b - 2; i > a && i >= b-5; i-- {
		if h.is(i, "in", "at", "on", "inside", "outside", "by", "behind", "near", "beside", "along", "between",
			"around", "round", "off", "against") && !h.onKit(i) {
			return i
		}
		if h.is(i, "edge") && h.is(i+1, "of") {
			return i
		}
	}
	return a
}

// places are what stands on grounds and in halls.
var places = strings.Fields("pitch court box boxes net wall fence line deck poolside grass turf track runway " +
	"ground post goal bench corner hall gym pool machine bag pad shield tee cage wicket square circle crease " +
	"block rink ice board rope beam floor lane sideline touchline baseline halfway dugout shed boat field park " +
	"area zone key paint arc elbow 22 23 45 grid cone hoop slope hill sand mat stairs steps ring plate mound " +
	"bullpen base outfield infield d")

// leads tells whether a word begins what is done: nothing stands before it but people and what
// begins a sentence.
func (h *marked) leads(a int) bool {
	for i := range a {
		if !slices.ContainsFunc(h.marks, func(m mark) bool {
			return m.from <= i && i < m.to && (m.role == roleWho || m.role == roleFiller || m.role == roleLeader ||
				timed(m.role))
		}) && !h.words[i].sign {
			return false
		}
	}
	return true
}

// vocabulary tells whether words are of names of drills.
func (h *lexed) vocabulary(from, to int) bool {
	for i := from; i < to; i++ {
		if !h.Word(h.words[i].is) {
			return false
		}
	}
	return true
}

// numeral tells whether a word is a number.
func (h *tokens) numeral(i int) bool { return i < len(h.words) && h.words[i].numeral }

// endsName are words with which what is told begins.
var endsName = strings.Fields("no without cos because cause so first keep till until while please watch watching")

// sided tells whether words are of sides that play: 4v4, 3 on 2.
func sided(words []word) bool {
	return slices.ContainsFunc(words, func(w word) bool {
		return len(w.is) >= 3 && w.is[0] >= '1' && w.is[0] <= '9' &&
			(strings.Contains(w.is, "v") || strings.Contains(w.is, " on ") || strings.Contains(w.is, "-"))
	})
}

// Group tells whether a text names people and nothing that they do: starters, year 8s.
func Group(text string) bool {
	words := split(text)
	return len(words) > 0 && (groupLike(words) || len(words) == 1 && words[0].is == "forward")
}

// groupLike tells whether words may be people that nobody knows: "year 8s", "skill guys".
func groupLike(words []word) bool {
	last := strings.TrimSuffix(words[len(words)-1].is, "'s")
	if last == "only" && len(words) > 1 {
		last = strings.TrimSuffix(words[len(words)-2].is, "'s")
	}
	return slices.Contains(groupWords, last) || slices.Contains(groupWords, words[0].is) &&
		!(len(words) == 3 && !slices.Contains(groupWords, last) && len(last) > 3) &&
		slices.ContainsFunc(words, func(w word) bool { return w.is == "+" || w.is == "and" || w.is == "/" })
}

// does tells whether words only join people and what they do: "everyone back for", "Kit does".
func (h *marked) does(from, to int) bool {
	for i := from; i < to; i++ {
		if !h.is(i, "do", "does", "back", "for", "go", "goes", "start", "doing", "on", "else") {
			return false
		}
	}
	return from > 0 && slices.ContainsFunc(h.marks, func(m mark) bool {
		return m.to == from && m.role == roleWho || m.role == roleWho && m.to < from
	})
}

// agents tells whether words are people by what they do, whom nobody knows: "drag flickers".
func (h *lexed) agents(from, to int) bool {
	last := h.words[to-1].is
	does := len(last) > 5 && (strings.HasSuffix(last, "ers") || strings.HasSuffix(last, "ors") ||
		strings.HasSuffix(last, "men")) && !strings.HasSuffix(last, "overs") && !strings.HasSuffix(last, "unders")
	return does && to-from <= 3 && !h.Known(strings.ToLower(h.text(from, to))) && !h.Moves(last)
}

// acts tells whether words are what is done.
func (h *lexed) acts(from, to int) bool {
	text := strings.ToLower(h.text(from, to))
	return from < to && (h.Moves(text) || h.Known(text)) && !slices.Contains(preps, h.words[from].is)
}

// people tells whether words name several people, or tell who does not: "libero + DSs", "GK and GD",
// "but the second row".
func (h *lexed) people(from, to int) bool {
	if h.is(from, "but", "bar", "except") {
		return to-from > 1 && h.people(from+1, to)
	}
	if groupLike(h.words[from:to]) {
		return true
	}
	named := 0
	for i := from; i < to; i++ {
		w := &h.words[i]
		text := h.text(i, i+1)
		switch {
		case slices.Contains(groupWords, w.is), h.Person(w.is), to-from > 1 && h.Person(w.is+"s"),
			len(text) >= 2 && len(text) <= 4 && text[:2] == strings.ToUpper(text[:2]) &&
				unicode.IsUpper(rune(text[0])) && !h.Word(w.is):
			named++
		case h.is(i, "and", "+", "/", "the", "our", "n", ",") && i+1 < to:
		default:
			return false
		}
	}
	return named > 0
}

var groupWords = strings.Fields(`everyone everybody all squad team group lads girls boys guys ladies players subs bench starters reserves juniors seniors pairs threes fours twos
	forwards backs attack defence defense keepers keeper gk gks goalies goalie pitchers pitcher catchers bowlers batters fielders outfielders infielders mids defenders attackers wings wingers centres guards bigs
	setters hitters liberos libs outsides middles rucks throwers fwds ds dss lads jumpers sprinters kickers qbs wrs o-line d-line ol dl ol/dl pack d-men men pivots shooters rowers crew
	pointers ones twos threes partners leads seconds year 8s 7s 9s 10s u12s u14s u16s u18s squad-a unit relievers starters anyone
	porteros porteras delanteros delanteras defensas laterales colocadores colocadoras receptores receptoras lanzadores lanzadoras bateadores pivotes extremos aleros pilares medios zagueros titulares suplentes parejas todos todas groups units specialists
	arquero arquera arqueros arqueras portero portera porteras guardametas centrales volantes carrileros carrileras mediocampistas puntas delantero delantera pateadores pateadoras capitanes capitanas
	armadores armadoras centrales bases escoltas pívot pívots pivots extremo líberos líbero opuestos opuestas jugadores jugadoras medias hookers zaguera zagueras lanzador lanzadora receptor receptora tríos tercetos`)
