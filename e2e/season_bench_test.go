package e2e

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"cuestart/core/conduct"
	"cuestart/demo"
	"cuestart/mariadb"
)

// What the database of many clubs holds.
const (
	manyClubs    = 10_000
	clubSessions = 28 // logged, of each: three months
	clubsAtOnce  = 250
)

// seasons measures the pages that look back over logs: of the demo club alone, and of the
// same club among ten thousand with five million rows of logs, which are filled in once.
func seasons(t *testing.T, small *program) error {
	data := filepath.Join(filepath.Dir(filepath.Dir(*figures)), "var", "bench", "season")
	if err := fillSeasons(data); err != nil {
		return err
	}
	big, err := startProgram(*figures, data)
	if err != nil {
		return err
	}
	defer big.stop()
	for _, view := range []struct{ name, path string }{{"today", "/today"}, {"week", "/week"}, {"logbook", "/log"}} {
		if err := small.views(view.name+"_alone_p95", view.path); err != nil {
			return err
		}
		if err := big.views(view.name+"_p95", view.path); err != nil {
			return err
		}
	}
	return nil
}

// fillSeasons fills a data folder with the demo club and many others, if that is not done.
func fillSeasons(data string) error {
	first, err := startProgram(*figures, data)
	if err != nil {
		return err
	}
	first.stop()
	server, err := mariadb.Start(context.Background(), filepath.Join(data, "mariadb"))
	if err != nil {
		return err
	}
	defer server.Stop()
	db, err := sql.Open("mysql", server.DSN("cuestart"))
	if err != nil {
		return err
	}
	defer db.Close()
	db.SetMaxOpenConns(1) // what is set holds for all
	var rows int
	if err := db.QueryRow("SELECT COUNT(*) FROM squad").Scan(&rows); err != nil || rows >= manyClubs {
		return err
	}
	began := time.Now()
	for _, set := range []string{"SET foreign_key_checks = 0", "SET unique_checks = 0", "SET sql_mode = ''"} {
		if _, err := db.Exec(set); err != nil {
			return err
		}
	}
	for from := 100; from < 100+manyClubs; from += clubsAtOnce {
		if err := someClubs(db, from, from+clubsAtOnce-1); err != nil {
			return err
		}
	}
	if err := db.QueryRow("SELECT COUNT(*) FROM log_drill").Scan(&rows); err != nil {
		return err
	}
	measured("season_fill_rows", float64(rows), "rows")
	measured("season_fill", time.Since(began).Seconds(), "s")
	return nil
}

// someClubs adds clubs by their ids, each with a squad and its logs.
func someClubs(db *sql.DB, from, to int) error {
	clubs := fmt.Sprintf("seq_%d_to_%d c", from, to)
	sessions := fmt.Sprintf("%s JOIN seq_0_to_%d n", clubs, clubSessions-1)
	const session, day = "c.seq * 100 + n.seq", "DATE('2026-11-27') - INTERVAL 3 * n.seq DAY"
	for _, insert := range []string{
		"INSERT INTO club (id, name, sport) SELECT c.seq, CONCAT('Club ', c.seq), 'Rugby union' FROM " + clubs,
		"INSERT INTO squad (id, club_id, name, grade) SELECT c.seq, c.seq, 'Firsts', 'club' FROM " + clubs,
		"INSERT INTO team_session (id, club_id, squad_id, kind, title, start_at, time_zone) SELECT " + session +
			", c.seq, c.seq, 'training', 'Training', " + day + ", 'Europe/London' FROM " + sessions,
		"INSERT INTO log_session (session_id, squad_id, day, kind, title, season, differs, content, made_at) SELECT " +
			session + ", c.seq, " + day + ", 'training', 'Training', '2026/27', '[]', '[]', NOW() FROM " + sessions,
		"INSERT INTO log_block (session_id, number, squad_id, day, block, name, phase, planned, actual, " +
			"measured, who) SELECT " +
			session + ", b.seq, c.seq, " + day +
			", CONCAT('b', b.seq), CONCAT('Block ', b.seq), 'raise', 240, 250, 1, '[]' FROM " + sessions +
			" JOIN seq_0_to_5 b",
		"INSERT INTO log_drill (session_id, number, item, squad_id, day, code, name, amount, seconds, without) " +
			"SELECT " +
			session + ", b.seq, i.seq, c.seq, " + day +
			", CONCAT('drill-', 3 * b.seq + i.seq + n.seq MOD 5), 'A drill', 8, 80, '[]' FROM " + sessions +
			" JOIN seq_0_to_5 b JOIN seq_0_to_2 i",
	} {
		if _, err := db.Exec(insert); err != nil {
			return fmt.Errorf("%.40s…: %w", insert, err)
		}
	}
	return nil
}

// atThePitch measures what a phone waits for: the core in Chromium slowed four times, and
// ten thousand presses that come in at once.
func atThePitch(t *testing.T) error {
	base, p := site(t, true)
	beforeStart(p, 40*time.Minute)
	ctx := context.Background()
	coach, _, err := p.Staff.AccountByEmail(ctx, demo.Email)
	if err != nil {
		return err
	}
	b := newBrowser(t, base)
	b.signIn()
	if _, err := chromedp.Call(b.ctx, page.SetBypassCSP, page.SetBypassCSPParams{Enabled: true}); err != nil {
		return err
	}
	b.open("/pitch/1?try=2400")
	b.run(`(async () => {
		const assets = document.querySelector("script[src*=pitch]").src.replace(/pitch\.js.*/, "");
		await new Promise((done) => { const s = document.createElement("script"); s.src = assets + "wasm_exec.js"; s.onload = done; document.head.append(s); });
		const go = new Go();
		const { instance } = await WebAssembly.instantiate(await (await fetch(assets + "field.wasm")).arrayBuffer(), go.importObject);
		go.run(instance);
		const plan = await (await fetch("/pitch/1/plan.json")).json();
		field.open(JSON.stringify({ document: plan.document, schedule: plan.schedule }));
		window.opened = true;
	})()`)
	b.until(`window.opened`)
	if _, err := chromedp.Call(b.ctx, emulation.SetCPUThrottlingRate,
		emulation.SetCPUThrottlingRateParams{Rate: 4}); err != nil {
		return err
	}
	var times, views []time.Duration
	for n := range 20 {
		var took [2]float64
		answer := evalPromise(b, fmt.Sprintf(`(async () => {
			const now = (new Date("2026-11-28T14:20:00Z")).getTime() + %d * 1000;
			const began = performance.now();
			field.view("[]", now);
			const seen = performance.now();
			const kinds = [{ is: "start", seconds: -600 }, { is: "start", seconds: -300 }, { is: "minutes", seconds: 240 }, { is: "place", id: "far" }, { is: "behind" }];
			const made = JSON.parse(field.propose("[]", now, JSON.stringify(kinds[%d]), field.steps));
			return JSON.stringify([seen - began, made.error ? -1 : performance.now() - seen]);
		})()`, 30*n, n%5))
		if err := json.Unmarshal([]byte(answer), &took); err != nil {
			return err
		}
		views, times = append(views, time.Duration(took[0]*1e6)), append(times, time.Duration(took[1]*1e6))
	}
	b.run(`location = "about:blank"`) // it works on otherwise
	measured("view_field_p95", p95(views), "ms")
	measured("refit_field_p95", p95(times), "ms")

	events := make([]conduct.Event, 10_000)
	for n := range events {
		events[n] = conduct.Event{ID: fmt.Sprint("e", n), At: p.Now().UnixMilli() - int64(n), Kind: conduct.Tick,
			Block: "kicks", Cell: n % 10, Tries: 1}
	}
	began := time.Now()
	if _, err := p.Pitchside.Pressed(ctx, coach, 1, events); err != nil {
		return err
	}
	measured("join_events", float64(time.Since(began).Milliseconds()), "ms")
	_, err = p.Pitchside.Running(ctx, 1, 1)
	require.NoError(t, err)
	return err
}
