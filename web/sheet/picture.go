package sheet

import (
	"encoding/base64"
	"fmt"
	"regexp"
	"strings"

	"cuestart/web/assets"
	"cuestart/web/chart"
	"cuestart/web/shell"
)

// Width of the board as a picture, in its own units, and of the names beside the lanes.
const (
	pictureWidth  = 1400
	pictureLabels = 190
)

// Picture is the board as an SVG file that stands by itself: colours and letters are in
// it.
func (in Room) Picture(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	c := chart.New(chart.Plan{Document: b.Document, Schedule: b.Schedule, Strands: b.Strands},
		chart.View{ID: "board", Width: pictureWidth, Labels: pictureLabels, Href: func(string) string { return "" }})
	drawn := screens.Render("sheet", "chart", c)
	drawn = strings.NewReplacer("<a ", "<g ", "</a>", "</g>").Replace(drawn) // it leads nowhere
	drawn = regexp.MustCompile(` (href|data-part|aria-current)(="[^"]*")?`).ReplaceAllString(drawn, "")
	size := fmt.Sprintf(`<svg xmlns="http://www.w3.org/2000/svg" width="%d" height="%d" class="chart"`, c.Width,
		c.Height)
	drawn = strings.Replace(drawn, `<svg class="chart"`, size, 1)
	drawn = strings.Replace(drawn, "<defs>", "<title>"+escaped(b.Document.Title)+"</title><defs>", 1)
	drawn = strings.Replace(drawn, "<defs>", fmt.Sprintf(`<defs><style>%s</style>`, pictureStyle()), 1)
	drawn = strings.Replace(drawn, "</defs>", fmt.Sprintf(`</defs><rect width="%d" height="%d" fill="#ffffff"/>`,
		c.Width, c.Height), 1)
	return shell.Raw{Kind: shell.SVG, Content: []byte(drawn)}, nil
}

var escaped = strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;").Replace

// pictureStyle is what of the site's style the chart needs, with its colours as they are
// by day and its letters: other programs know nothing of the site.
func pictureStyle() string {
	app, _ := assets.Find("app.css")
	styles := string(app.Content)
	var made strings.Builder
	for family, file := range map[string]string{"Barlow Condensed": "barlow-condensed-latin-600-normal",
		"Atkinson Hyperlegible": "atkinson-hyperlegible-latin-400-normal"} {
		font, _ := assets.Find("fonts/" + file + ".woff2")
		fmt.Fprintf(&made, `@font-face{font-family:"%s";src:url(data:font/woff2;base64,%s)}`, family,
			base64.StdEncoding.EncodeToString(font.Content))
	}
	day := regexp.MustCompile(`:root\{(--paper[^}]*)\}`).FindStringSubmatch(styles)
	values := map[string]string{"--font-figure": `"Barlow Condensed",sans-serif`,
		"--font-text": `"Atkinson Hyperlegible",sans-serif`}
	for _, one := range strings.Split(day[1], ";") {
		if name, value, ok := strings.Cut(one, ":"); ok {
			values[name] = value
		}
	}
	for _, rule := range regexp.MustCompile(`\.(chart|hatch)[^{}]*\{[^}]*\}`).FindAllString(styles, -1) {
		if !strings.Contains(rule, ":hover") && !strings.Contains(rule, ":focus") {
			made.WriteString(rule)
		}
	}
	return regexp.MustCompile(`var\((--[a-z-]+)\)`).ReplaceAllStringFunc(made.String(), func(use string) string {
		return values[strings.TrimSuffix(strings.TrimPrefix(use, "var("), ")")]
	})
}
