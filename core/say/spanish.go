package say

import (
	"regexp"
	"strings"

	"cuestart/core/movement"
)

// spanishDoses are Spanish words for how much, where to, who and when, as patterns, and the English
// ones that say as much, in the order in which they are put. What drills are called stays as it is.
var spanishDoses = table(`
,? ?\b((?:dos|tres|cuatro|\d+) (?:segs?|segundos) (?:bajando|subiendo|abajo|arriba))\b =>  ($1)
\bun minuto y medio\b|\bminuto y medio\b => 90 s
\bmedio minuto\b => 30 s
\b(?:un|1) minuto\b => 1 min
\b(?:una vez)\b => once
\b(?:dos|2) veces\b => twice
\btres (veces|series|segundos|seg|minutos|min|metros|vueltas|repeticiones|reps|respiraciones|pasadas) => 3 $1
\bdos (series|segundos|seg|minutos|min|metros|vueltas|repeticiones|reps|respiraciones|pasadas) => 2 $1
\bcuatro (veces|series|segundos|seg|minutos|min|vueltas|repeticiones|reps|respiraciones|pasadas) => 4 $1
\bcinco (veces|series|segundos|seg|minutos|min|vueltas|repeticiones|reps|respiraciones|pasadas) => 5 $1
\bseis (veces|segundos|seg|minutos|min|vueltas|repeticiones|reps) => 6 $1
\bdiez (veces|segundos|seg|minutos|min|repeticiones|reps) => 10 $1
\bveinte (segundos|seg|repeticiones|reps) => 20 $1
\btreinta (segundos|seg) => 30 $1
\bcuenta de diez\b => count of ten
\bcuenta de cinco\b => count of five
\bcuenta hasta (\d+)\b => count of $1
(\d+) ?s entre series\b => rest $1 s
(\d+) ?(?:seg|segundos?) (?:de )?(?:descanso|pausa|entre series)\b => rest $1 s
\bdescanso (?:de )?(\d+) ?(?:seg|segundos?|s)\b => rest $1 s
(\d+) ?(?:segundos?|segs?)\b => $1 s
(\d+) ?(?:minutos?|mins)\b => $1 min
(\d+) ?(?:metros|mts|mt)\b => $1 m
(\d+) series? de (\d+) => $1 sets of $2
(\d+) veces\b => x $1
(\d+) (?:repeticiones|repes)\b => $1 reps
(\d+) respiraci(?:ones|[oó]n)(?: hondas?| profundas?)? => $1 breaths
(\d+) vueltas? (?:a|al|por) (?:la |el |media )*(?:cancha|pista|campo|c[eé]sped|gimnasio|pabell[oó]n) => $1 laps
(\d+) pasadas?\b => $1 lengths
\bida y vuelta\b => there and back
\bpor cada lado\b|\bpara cada lado\b|\bde cada lado\b|\ba cada lado\b|\bcada lado\b|\bpor lado\b => a side
\b(?:con|por|para|de|en)? ?cada pierna\b|\bpor pierna\b => each leg
\b(?:con|por|para|de|en)? ?cada brazo\b|\bpor brazo\b => each arm
\b(?:con|por|para|de|en)? ?cada (?:pie|mano)\b|\bpor (?:pie|mano)\b => each side
\bc/u\b|\bcada un[oa]\b|\bcada quien\b => each
\balternando\b|\balternad[oa]s?\b => alternating
\bhasta (?:el |la |los |las )?(?:borde del )?([aá]rea|medio campo|media pista|media cancha|mitad de cancha|fondo|\d\d|l[ií]nea de \d+(?: metros| m)?) y (?:volver|vuelta|regres[oa]r?)\b => to the $1 and back
\bhasta (?:el |la |los |las )?([aá]rea|medio campo|media pista|media cancha|mitad de cancha|fondo|\d\d|l[ií]nea de \d+(?: metros| m)?) => to the $1
\bde fondo a (medio campo|media pista|media cancha) => to the $1
\bto the l[ií]nea de (\d+)(?: metros| m)? => to the $1 m line
\by volver\b => and back
\bal (\d+) ?% => at $1 %
\ba media fuerza\b|\ba medio gas\b => at 50 %
\btod[oa]s menos (?:las|los|el|la) => everyone but
\bjusto despu[eé]s de (?:los |las |el |la )? => straight after 
\bantes de (?:los |las |el |la )? => before 
\bdespu[eé]s de (?:los |las |el |la )? => after 
\ben parejas\b => in pairs
\ben tr[ií]os\b => in threes
(\d+) (?:pa|para|hacia) (?:ad|d)?elante y (\d+) (?:pa|para|hacia) atr[aá]s => $1 forward and $2 back
(\d+) adelante-atr[aá]s y (\d+) laterales? => $1 forward and $2 sideways
\bde (\d+) a (\d+)\b => from $1 to $2
^a (\d{1,2}) (\pL.*)$ => $2 at $1
\ba (\d{1,2}), dura (\d+)$ => at $1 for $2 min
\ba (\d{1,2})($|[,)]) => at $1$2
(\pL) o (\pL) => $1 or $2
\bunas? (\d+) => $1
(\d+) pelotas\b => $1 balls
(\d+) toques\b => $1 taps
`)

type replacing struct {
	of *regexp.Regexp
	by string
}

func table(text string) (list []replacing) {
	for _, line := range strings.Split(strings.TrimSpace(text), "\n") {
		of, by, _ := strings.Cut(line, " => ")
		list = append(list, replacing{regexp.MustCompile(`(?i)` + of), by})
	}
	return list
}

// inSpanish are words that only Spanish has, of those that lists use.
var inSpanish = regexp.MustCompile(`(?i)\b(?:ida y vuelta|series de|dura|bajando|por lado|por pierna|por brazo|cada|hasta|veces|vueltas?|segundos|minutos|metros|seg|con|para|los|las|del|luego|despu[eé]s|una|el|gl[uú]teo|sentadillas?|plancha|trote|movilidad|calentamiento|c/u)\b`)

// Spanish tells whether a list is in Spanish: in most of its lines stands a word that only Spanish has.
func Spanish(lines []string) bool {
	said, spanish := 0, 0
	for _, line := range lines {
		if strings.TrimSpace(line) == "" {
			continue
		}
		if said++; inSpanish.MatchString(line) {
			spanish++
		}
	}
	return spanish > 0 && 2*spanish >= said
}

// dosesInEnglish is a line in Spanish with how much, who, where and when in English.
func dosesInEnglish(line string) string {
	for _, r := range spanishDoses {
		line = r.of.ReplaceAllString(line, r.by)
	}
	return line
}

// meant gives a drill that the book has by what its Spanish name means that drill's code.
func (r *Reader) meant(l *Line) {
	means := movement.InEnglish(l.Name)
	if l.Code != "" || l.Name == "" || means == l.Name {
		return
	}
	if k, _, _ := r.known.seek(means); k != nil {
		l.Code, l.Likely = k.Code, nil
	}
}
