package say

import (
	"strings"

	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/pattern"
)

// spanishDoses are Spanish words for how much, where to, who and when, as patterns, and the English
// ones that say as much, in the order in which they are put. What drills are called stays as it is.
var spanishDoses = table(`
^([\pL ]{3,30}?) ?(?:->|→) ?(\pL.*)$ => $1: $2
^((?:los |las |el |la )?\pL+) con (?:el |la )?((?-i:\p{Lu})\pL+)[,:] (.+)$ => $1: $3, with $2
^con (?:el |la )?(\pL+): (.+)$ => $2 (with $1)
 con (?:el |la )?(segundo entrenador|segunda entrenadora|entrenador|entrenadora|fisio|prepa|utilero|ayudante|capit[aá]na?) => , with the $1
 a (?:un|1) toque\b => , 1 touch
 a (?:dos|2) toques\b => , 2 touch
 a (?:tres|3) toques\b => , 3 touch
\b(?:por|en|desde) (?:la )?zona (\d)\b => (zona $1)
\bida y vuelta (?:al|a la|hasta el|hasta la) (\S+) => to the $1 and back
\bdesde (?:(\d+)|cinco) (?:posiciones|puntos|sitios), (\d+) (?:de cada|en cada|desde cada|cada)(?: un[ao])?\b => from 5 positions, $2 each
\bhasta (?:el |la )(\S+) y (?:vuelta|volver|regreso) con => to the $1, back with
,? ?\b((?:dos|tres|cuatro|\d+) (?:segs?|segundos) (?:bajando|subiendo|abajo|arriba))\b =>  ($1)
\b(\d+) contra (\d+)\b => ${1}v$2
 con ((?-i:\p{Lu})\pL+)($|[ ,.;:]) =>  with $1$2
,? (?:a falta de|faltando|cuando falten) (\d+)(?: ?min\pL*)?$ => , at $1
,? a l[ao]s (\d{1,2}[:.]\d\d)\b =>  at $1
 a los (\d+)(?: ?min\pL*)?$ =>  at $1
,?(?: en)?(?: los)? [uú]ltimos (\d+) ?min\pL* => , last $1 min
\b(\d{2}) a (\d{1,2})$ => $1 to $2
\b(\d{2}) a (\d{1,2}): => $1 to $2:
(\d+) direcciones\b => $1 ways
^(\d+) vueltas (suaves?|tranquil[ao]s?)\b => $1 laps $2
\b(\d+) (?:por|a|con|hacia) (?:la )?(derecha|izquierda) y (\d+) (?:por|a|con|hacia) (?:la )?(derecha|izquierda)\b => $1 right and $3 left
(\d+), (\d+) y (\d+) ?% => $1, $2 and $3 %
(\d+) y (\d+) ?% => $1 and $2 %
,? (\d+)(?: ?min\pL*)? antes$ => , $1 min before
\b(?:a|en|desde|por|para) cada (?:cuadro|zona de saque)\b => each box
\b(?:a|en|desde|por|para) cada (?:esquina|banda)\b => each corner
\b(?:a|en|desde|por|para) cada palo\b => each post
\b(\d+) por (?:jugador|jugadora|cabeza|persona)\b => $1 each
\baguant(?:a|ar|ando) (\d+)\b => hold $1
(\d+) x (pierna|lado|brazo|pie|mano)\b => $1 por $2
, (\d+) (?:tiros|disparos|lanzamientos)\b => , $1 shots
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
\bcuenta de (?:cinco|5)\b => count of five
\bcuenta de (\d+)\b => count of $1
\bcuenta hasta (\d+)\b => count of $1
(\d+) ?s entre series\b => rest $1 s
(\d+) ?(?:seg|segundos?) (?:de )?(?:descanso|pausa|entre series)\b => rest $1 s
\bdescanso (?:de )?(\d+) ?(?:seg|segundos?|s)\b => rest $1 s
\bdescanso (?:de )?(\d+)($|[,.)]) => rest $1 s$2
(\d+) ?(?:segundos?|segs?)\b => $1 s
(\d+) ?(?:minutos?|mins)\b => $1 min
(\d+) ?(?:metros|mts|mt)\b => $1 m
(\d+) series? de (\d+) => $1 sets of $2
(\d+) veces\b => x $1
(\d+) (?:repeticiones|repes)\b => $1 reps
(\d+) respiraci(?:ones|[oó]n)(?: hondas?| profundas?)? => $1 breaths
(\d+) vueltas? (?:a|al|por) (?:la |el )*(?:cancha|pista|campo|c[eé]sped|gimnasio|pabell[oó]n) => $1 laps
(\d+) pasadas?\b => $1 lengths
\bida y vuelta\b => there and back
\bpor cada lado\b|\bpara cada lado\b|\bde cada lado\b|\ba cada lado\b|\bcada lado\b|\bpor lado\b => a side
\b(?:con|por|para|de|en)? ?cada pierna\b|\bpor pierna\b => each leg
\b(?:con|por|para|de|en)? ?cada brazo\b|\bpor brazo\b => each arm
\b(?:con|por|para|de|en)? ?cada (?:pie|mano)\b|\bpor (?:pie|mano)\b => each side
\b(?:con|por|para|de|en)? ?cada hombro\b|\bpor hombro\b => each shoulder
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
(\d+) adelante-atr[aá]s y (\d+) laterales? => $1 front to back, $2 side to side
\bde (\d+) a (\d+)\b => from $1 to $2
^a (\d{1,2}) (\pL.*)$ => $2 at $1
\ba (\d{1,2}), dura (\d+)$ => at $1 for $2 min
\ba (\d{1,2})($|[,)]) => at $1$2
(\pL) o (\pL) => $1 or $2
\bunas? (\d+) => $1
(\d+) pelotas\b => $1 balls
, (\d+) toques\b => , $1 taps
(\d[^,;:\d]*) y (\d) => $1 and $2
^(agua|hidrataci[oó]n|charla|himnos?|sorteo|foto)(?: de equipo)?(?: por equipos)? from (\d+) to (\d+)$ => $1 $2-$3
^(agua|hidrataci[oó]n|charla|himnos?|sorteo|foto) at (\d+) for (\d+) min$ => $1 at $2, $3 min
`)

type replacing struct {
	of *pattern.Pattern
	by string
}

// spanishNumbers are numbers in letters, where they say how much.
var spanishNumbers = map[string]string{"tres": "3", "cuatro": "4", "cinco": "5", "seis": "6", "siete": "7", "ocho": "8",
	"nueve": "9", "diez": "10", "doce": "12", "quince": "15", "veinte": "20", "treinta": "30"}

var inLetters = pattern.Must(`(?i)\b(tres|cuatro|cinco|seis|siete|ocho|nueve|diez|doce|quince|veinte|treinta)( (?:de|por|a|con|en|para) (?:cada |la |el )?\pL+| cada| y |$|,)`)

func table(text string) (list []replacing) {
	for _, line := range strings.Split(strings.TrimSpace(text), "\n") {
		of, by, _ := strings.Cut(line, " => ")
		list = append(list, replacing{pattern.Must(`(?i)` + of), by})
	}
	return list
}

// inSpanish are words that only Spanish has, of those that lists use.
var inSpanish = pattern.Must(`(?i)\b(?:ida y vuelta|series de|dura|bajando|por lado|por pierna|por brazo|cada|hasta|veces|vueltas?|segundos|minutos|metros|seg|con|para|los|las|del|luego|despu[eé]s|una|el|gl[uú]teo|sentadillas?|plancha|trote|movilidad|calentamiento|c/u)\b`)

// weak are words of Spanish that other languages' lists use too: one alone tells nothing.
var weak = pattern.Must(`(?i)^(?:con|para|los|las|del|una|el|seg|dura|cada|plancha)$`)

// spanishLine tells whether a line has a word that only Spanish has, or two that few others have.
func spanishLine(line string) bool {
	words := inSpanish.FindAllString(line, -1)
	return len(words) > 1 || len(words) == 1 && !weak.MatchString(words[0]) || strings.ContainsAny(line, "ñ¿¡")
}

// Spanish tells whether a list is in Spanish: in most of its lines stands a word that only Spanish has.
func Spanish(lines []string) bool {
	said, spanish := 0, 0
	for _, line := range lines {
		if strings.TrimSpace(line) == "" {
			continue
		}
		if said++; spanishLine(line) {
			spanish++
		}
	}
	return spanish > 0 && 2*spanish >= said
}

// dosesInEnglish is a line in Spanish with how much, who, where and when in English.
func dosesInEnglish(line string) string {
	line = inLetters.ReplaceAllStringFunc(line, func(said string) string {
		word := strings.FieldsFunc(said, func(r rune) bool { return r == ' ' || r == ',' })[0]
		return spanishNumbers[strings.ToLower(word)] + said[len(word):]
	})
	for _, r := range spanishDoses {
		line = r.of.ReplaceAllString(line, r.by)
	}
	return line
}

// meant gives a drill that the book has by what its Spanish name means that drill's code.
func (k *knower) meant(l *Line) {
	means := movement.InEnglish(l.Name)
	if l.Code != "" || l.Name == "" || means == l.Name {
		return
	}
	known, _, _ := k.Index.seek(means)
	if known == nil {
		return
	}
	l.Code, l.Likely = known.Code, nil
	if d := l.Dose; d != nil && d.each && d.SaidSides == 0 && known.Dose.Sides == 2 &&
		(d.Kind == drill.Reps || d.Kind == drill.Hold) {
		// each is each side
		d.Sides, d.SaidSides = 2, 2
	}
}

// ownWords is a cue, or a name, in the words in which the line that it was read from was typed: what was put into
// English to be read is never told so.
func ownWords(read, said string) string {
	low, from, to, at := strings.ToLower(said), -1, -1, 0
	if len(low) != len(said) || strings.Contains(low, strings.ToLower(read)) {
		return read
	}
	for w := range strings.FieldsSeq(strings.ToLower(read)) {
		i := strings.Index(low[at:], w)
		if i < 0 || len(w) < 2 {
			continue
		}
		if at += i; from < 0 {
			from = at
		}
		at += len(w)
		to = at
	}
	if from < 0 {
		return touches.ReplaceAllString(read, "a $1 toques")
	}
	if m := littleBefore.FindStringIndex(said[:from]); m != nil && strings.HasPrefix(read, "with ") {
		from = m[0]
	}
	if span := said[from:to]; len(figures.FindAllString(span, -1)) <= len(figures.FindAllString(read, -1)) {
		return span
	}
	return read
}

var (
	touches      = pattern.Must(`^(\d) touch$`)
	littleBefore = pattern.Must(`(?i)\bcon (?:el |la |los |las )?$`)
)
