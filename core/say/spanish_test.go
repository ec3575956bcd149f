package say_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/drill"
	"cuestart/core/say"
)

// A list in Spanish is read as one in English, under the names that it has.
func TestAListInSpanish(t *testing.T) {
	plays, _ := book.Sport("football")
	r := say.NewReader(say.Context{Sport: "football", Start: "15:00", Plays: &plays, Book: book.Drills()})
	lines := r.ReadAll(`Trote suave hasta el área y volver x 2
talones al glúteo 20 m ida y vuelta
puente de glúteo a una pierna 8 por lado
plancha medio minuto
sentadillas 2 series de 12, 40 s entre series
círculos de hombros 10 para adelante y 10 para atrás
Ojo que hoy solo tenemos media cancha hasta que acaben`)
	require.Len(t, lines, 7)
	assert.Equal(t, 4, lines[0].Dose.Trips)
	assert.Equal(t, "talones al glúteo", lines[1].Name)
	assert.Equal(t, "heel-kicks", lines[1].Code, "found in the book by what it means")
	assert.Equal(t, 2, lines[1].Dose.Trips)
	assert.InDelta(t, 20, lines[1].Dose.Metres, 1e-9)
	assert.Equal(t, "talones al glúteo 20 m ida y vuelta", lines[1].Said, "as it was typed")
	assert.Equal(t, 8, lines[2].Dose.Reps)
	assert.Equal(t, 30, lines[3].Dose.Seconds+int(lines[3].Dose.HoldSeconds))
	assert.Equal(t, []any{drill.Reps, 2, 12, 40.0}, []any{lines[4].Dose.Kind, lines[4].Dose.Sets, lines[4].Dose.Reps,
		lines[4].Dose.RestSeconds})
	assert.Equal(t, [][]int{{10, 10}}, lines[5].Dose.Counts)
	assert.Equal(t, say.IsNote, lines[6].Is)
	assert.Equal(t, "Ojo que hoy solo tenemos media cancha hasta que acaben", lines[6].Note)

	plays, _ = book.Sport("football")
	r = say.NewReader(say.Context{Sport: "football", Language: "es", Start: "15:00", Plays: &plays,
		Book: book.Drills()})
	lines = r.ReadAll("arqueros manos 6 por lado con Julio\nrondo 4 contra 2, 4 minutos\ncharla técnica 8 " +
		"minutos antes\ntackle al bolso 4 por hombro")
	require.Len(t, lines, 4)
	assert.Contains(t, strings.Join(lines[0].Cues, ", "), "con Julio", "the plan has no such leader: it is told")
	assert.Equal(t, 240, lines[1].Dose.Seconds)
	assert.Equal(t, -480, *lines[2].At)
	assert.Equal(t, 2, lines[3].Dose.Sides)
}
