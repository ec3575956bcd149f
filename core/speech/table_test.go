package speech_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/speech"
)

var spanish = speech.NewTable(map[string]string{
	"Undo": "Deshacer", "%d drills": "%d ejercicios", "# lengths of # m": "# largos de # m", "Shuttles": "Ida y vuelta",
	"Arms, then legs": "Brazos y luego piernas",
	"From %s on":      "Desde %s", "pick who does it": "elige quién lo hace", "ankle": "tobillo", "knee": "rodilla",
	"not #": "no #", "Stop on pain": "Para si duele", "Say": "Di",
	"Sat": "sáb", "November": "noviembre", "Saturday": "sábado",
})

// What a piece is made of decides how it is told; what the table does not know stays, whole sentences of it at least.
func TestPiecesAreTold(t *testing.T) {
	for english, told := range map[string]string{
		"Undo":                            "Deshacer",
		"  Undo ":                         "  Deshacer ",
		"12 drills":                       "12 ejercicios",
		"Shuttles: 4 lengths of 20 m":     "Ida y vuelta: 4 largos de 20 m",
		"Mill loop: 4 lengths of 20 m":    "Mill loop: 4 largos de 20 m",
		"4 lengths of 20 m, not 6":        "4 largos de 20 m, no 6",
		"Arms, then legs: 3 drills":       "Brazos y luego piernas: 3 ejercicios",
		"Pick who does it":                "Elige quién lo hace",
		"ankle knee":                      "tobillo rodilla",
		"ankle bracelet":                  "ankle bracelet",
		"From Ada on":                     "Desde Ada",
		"From Ada; Shuttles. Bo on":       "From Ada; Ida y vuelta. Bo on",
		"Stop on pain. Mind the step.":    "Para si duele. Mind the step.",
		"Saturday 28 November":            "sábado 28 noviembre",
		"Mind the step, 4 lengths of 2 m": "Mind the step, 4 lengths of 2 m",
	} {
		assert.Equal(t, told, spanish.Told(english))
	}
	assert.Equal(t, "Undo", (*speech.Table)(nil).Told("Undo"), "English is told as it stands")
}

func ExampleTable_Told() {
	t := speech.NewTable(map[string]string{"# a side": "# por lado", "Leg swings": "Balanceos de pierna"})
	fmt.Println(t.Told("Leg swings: 8 a side"))
	// Output: Balanceos de pierna: 8 por lado
}
