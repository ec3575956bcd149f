package phone

import (
	"encoding/json"
	"strings"

	"cuestart/web/assets"
	"cuestart/web/shell"
)

// keptFiles are what a phone keeps to show its page without a signal.
var keptFiles = []string{"phone.css", "player.js", "icon.svg", "fonts/barlow-condensed-small-600-normal.woff2",
	"fonts/atkinson-hyperlegible-small-400-normal.woff2"}

// Worker is the script that keeps the newest page whole for when there is no signal.
func Worker(*shell.Request) (shell.Answer, error) { return shell.Keeper(keptFiles) }

// Manifest lets a phone put a person's page among its programs.
func (in Room) Manifest(r *shell.Request) (shell.Answer, error) {
	found, err := in.shared(r)
	if err != nil {
		return nil, err
	}
	icon, err := assets.URL("icon.svg")
	if err != nil {
		return nil, err
	}
	name := found.Document.Title
	if p := found.Document.Player(found.Person); p != nil {
		name = p.ShortName() + ": " + r.Tongue().T("My run-in")
	}
	text, err := json.Marshal(map[string]any{"name": name, "short_name": strings.Split(name, ":")[0],
		"start_url": base(way(r)), "scope": "/r/", "display": "standalone",
		"background_color": "#f5f1e7", "theme_color": "#c63f14",
		"icons": []map[string]string{{"src": icon, "sizes": "any", "type": "image/svg+xml", "purpose": "any"}}})
	return shell.Raw{Kind: "application/manifest+json", Content: text}, err
}
