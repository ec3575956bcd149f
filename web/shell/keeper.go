package shell

import (
	"encoding/json"
	"fmt"
	"slices"

	"cuestart/web/assets"
)

// Keeper is the script by which a browser keeps pages whole for when there is no signal,
// with the files that they need, and what else lies at those paths. It is made anew with
// these.
func Keeper(files []string, paths ...string) (Answer, error) {
	script, _ := assets.Find("keeper.js")
	kept := slices.Clone(paths)
	for _, name := range files {
		path, err := assets.URL(name)
		if err != nil {
			return nil, err
		}
		kept = append(kept, path)
	}
	list, err := json.Marshal(kept)
	return Raw{Kind: "text/javascript; charset=utf-8", Content: fmt.Appendf(nil, "const files = %s;\n%s", list,
		script.Content)}, err
}
