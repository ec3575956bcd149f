// Package assets is the built styles, scripts and fonts of the site.
package assets

import (
	"crypto/sha256"
	"embed"
	"fmt"
	"io/fs"
	"mime"
	"path"
	"strings"
	"sync"
)

//go:embed dist built
var files embed.FS

// File is a built file, ready to be sent.
type File struct {
	Content []byte
	Kind    string // its media type
	Packed  bool   // by gzip
}

// Version is one for all files, so that a style finds its fonts beside it. What
// is asked for under it never changes.
func Version() string {
	_, version := found()
	return version
}

// found are the files by their names, and their version.
var found = sync.OnceValues(func() (all map[string]File, version string) {
	all = map[string]File{}
	whole := sha256.New()
	for _, folder := range []string{"dist", "built"} {
		err := fs.WalkDir(files, folder, func(name string, entry fs.DirEntry, err error) error {
			if err != nil || entry.IsDir() {
				return err
			}
			content, err := files.ReadFile(name)
			whole.Write(content)
			known, packed := strings.CutSuffix(strings.TrimPrefix(name, folder+"/"), ".gz")
			all[known] = File{content, kindOf(known), packed}
			return err
		})
		if err != nil {
			panic(err) // they are embedded
		}
	}
	return all, fmt.Sprintf("%x", whole.Sum(nil)[:6])
})

// kindOf is the media type of a file.
func kindOf(name string) string {
	switch path.Ext(name) {
	case ".woff2":
		return "font/woff2"
	case ".wasm":
		return "application/wasm"
	}
	return mime.TypeByExtension(path.Ext(name))
}

// Find returns the file of that name, such as app.css.
func Find(name string) (File, bool) {
	all, _ := found()
	f, ok := all[name]
	return f, ok
}

// URL is the address of the file of that name. It fails where there is none.
func URL(name string) (string, error) {
	all, version := found()
	if _, ok := all[name]; !ok {
		return "", fmt.Errorf("there is no asset %s", name)
	}
	return "/assets/" + version + "/" + name, nil
}
