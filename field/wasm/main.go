//go:build js && wasm

// Command wasm is the core for a browser. It puts four functions under the name field:
// open(plan), view(events, now), propose(events, now, different, steps) and steps. Texts are
// JSON; what fails answers {"error": "…"}.
package main

import (
	"encoding/json"
	"syscall/js"
	_ "time/tzdata" // a browser has none

	"cuestart/core/schedule"
	"cuestart/field"
)

var phone *field.Phone

func main() {
	js.Global().Set("field", map[string]any{
		"open": js.FuncOf(func(_ js.Value, args []js.Value) any {
			opened, err := field.Open([]byte(args[0].String()))
			if err == nil {
				phone = opened
			}
			return answer([]byte("{}"), err)
		}),
		"view": js.FuncOf(func(_ js.Value, args []js.Value) any {
			return answer(phone.View([]byte(args[0].String()), int64(args[1].Float())))
		}),
		"propose": js.FuncOf(func(_ js.Value, args []js.Value) any {
			return answer(phone.Propose([]byte(args[0].String()), int64(args[1].Float()), []byte(args[2].String()),
				args[3].Int()))
		}),
		"steps": schedule.AtOnce,
	})
	select {} // the page calls as long as it is open
}

func answer(made []byte, err error) any {
	if err == nil {
		return string(made)
	}
	said, _ := json.Marshal(map[string]string{"error": err.Error()})
	return string(said)
}
