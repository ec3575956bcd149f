package movement

import (
	"slices"
	"strings"
)

// spanishText are words for movements and parts of the body in Spanish, without accents, and the
// English ones that say as much. The longest are taken first.
const spanishText = `
trote suave = easy jog; trote = jog; trotar = jog; trotamos = jog; carrera progresiva = build-ups; progresivos = build-ups; progresivas = build-ups; carrera = run; carreras = runs; correr = run
rodillas arriba = high knees; rodillas altas = high knees; talones al gluteo = heel kicks; talones a la cola = heel kicks; talones al culo = heel kicks; pateando cola = heel kicks
pasos laterales = side shuffle; desplazamientos laterales = side shuffle; laterales = side shuffle; paso lateral = side shuffle; caminar = walk; caminata = walk; marcha = march
zancadas con giro = lunge with rotation; desplantes con giro = lunge with rotation; zancadas = lunges; zancada = lunge; desplantes = lunges; estocadas = lunges; tijeras = lunges
sentadillas con salto = squat jumps; sentadilla en la pared = wall sit; sentadillas = squats; sentadilla = squat; cuclillas = squat hold; plancha lateral = side plank; plancha tocando hombros = plank shoulder taps; plancha = plank; planchas = planks
puente de gluteo = glute bridge; puentes = bridges; puente = bridge; bicho muerto = dead bug; pajaro perro = bird dog; almejas = clams; monstruo = band walk
lagartijas = press-ups; flexiones = press-ups; abdominales = sit-ups; gusanito = inchworm; gusano = inchworm; oruga = inchworm; escaladores = mountain climbers
saltar la comba = skipping rope; comba = skipping rope; saltar la cuerda = skipping rope; bici = bike; bicicleta = bike; remo = row
saltos al cajon = box jumps; saltos = jumps; salto y caida = jump and stick; salto = jump; saltitos = hops; multisaltos = bounds; caidas = landings
circulos de hombros = shoulder circles; circulos de brazos = arm circles; circulos de cadera = hip circles; circulos = circles; balanceos de pierna = leg swings; balanceos = swings; balanceo = swing
rotadores = external rotation; rotacion toracica = thoracic rotation; rotaciones = rotations; rotacion = rotation; giros = turns; giro = turn; movilidad de cadera = hip mobility; movilidad = mobility
estiramientos = stretches; estiramiento = stretch; el mejor estiramiento del mundo = worlds greatest stretch; estirar = stretch; respiraciones = breaths; foam = foam roll; rodillo = foam roll
aductores = adductor squeeze; isquios = hamstring; gemelos = calf; pantorrilla = calf; cuadriceps = quad; gluteos = glute; gluteo = glute; cadera = hip; caderas = hips; hombros = shoulders; hombro = shoulder; tobillos = ankles; tobillo = ankle; rodilla = knee; espalda = back; cuello = neck; muneca = wrist; codo = elbow; psoas = hip flexor
pases = passes; pase de pecho = chest pass; pase = pass; lanzamientos = throws; lanzamiento = throw; tiro largo = long toss; tiros libres = free throws; tiros = shots; tiro = shot; remates = shots; remate = shot; bote = dribble; regate = dribble; conduccion = dribble; centros = crosses; blocajes = catches; paradas = saves; defensa = defensive slide; arrastre = drag; saques = serves; saque = serve; recepcion = passing; posesion = possession game; bateo = batting; rodados = ground balls; elevados = fly balls; vallas = hurdles; balon medicinal = medicine ball throw; escalera = ladder; tecnica de carrera = running technique; corner corto = corner shots
`

// spanish are those words, the longest first.
var spanish = func() (list [][2]string) {
	for _, line := range strings.FieldsFunc(spanishText, func(c rune) bool { return c == '\n' || c == ';' }) {
		if said, means, two := strings.Cut(line, " = "); two {
			list = append(list, [2]string{" " + strings.TrimSpace(said) + " ", " " + strings.TrimSpace(means) + " "})
		}
	}
	slices.SortStableFunc(list, func(a, b [2]string) int { return len(b[0]) - len(a[0]) })
	return list
}()

// unaccented is a text in small letters without accents.
var unaccented = strings.NewReplacer("á", "a", "é", "e", "í", "i", "ó", "o", "ú", "u", "ü", "u", "ñ", "n", "Á", "a",
	"É", "e", "Í", "i", "Ó", "o", "Ú", "u", "Ñ", "n")

// InEnglish is a name with its Spanish words for movements in English; the same text where it has
// none.
func InEnglish(name string) string {
	plain := " " + strings.ToLower(unaccented.Replace(name)) + " "
	is := plain
	for _, w := range spanish {
		is = strings.ReplaceAll(is, w[0], w[1])
	}
	if is == plain {
		return name
	}
	return strings.TrimSpace(is)
}
