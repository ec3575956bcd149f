package main

import (
	"context"
	"database/sql"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/mariadb"
	"cuestart/store"
)

// How often things are killed: seldom with the other tests, often by make soak.
var (
	startKills = flag.Int("start-kills", 2, "kills in a first start, and in an upgrade from each version")
	workKills  = flag.Int("work-kills", 2, "kills while people work")
	fromAll    = flag.Bool("from-all", false, "upgrades from every version, not from two of them")
)

// killed runs cuestart migrate on a data folder and kills it after a while, every third time
// with its database.
func killed(t *testing.T, data string, after time.Duration, both bool) {
	c := exec.Command(binary, "migrate")
	c.Env = append(os.Environ(), "CUESTART_DATA="+data)
	require.NoError(t, c.Start())
	time.Sleep(after)
	if both {
		killDatabase(data)
	}
	c.Process.Kill()
	c.Wait()
}

func killDatabase(data string) {
	text, err := os.ReadFile(filepath.Join(data, "mariadb", "pid"))
	if pid, err2 := strconv.Atoi(strings.TrimSpace(string(text))); err == nil && err2 == nil {
		syscall.Kill(pid, syscall.SIGKILL)
	}
}

// up runs cuestart migrate to its end, and tells how long that took.
func up(t *testing.T, data string) time.Duration {
	began := time.Now()
	c := exec.Command(binary, "migrate")
	c.Env = append(os.Environ(), "CUESTART_DATA="+data)
	out, err := c.CombinedOutput()
	require.NoError(t, err, string(out))
	return time.Since(began)
}

// on opens the database of a data folder while nothing else runs on it.
func on(t *testing.T, data string, do func(s *store.Store, raw *sql.DB)) {
	server, err := mariadb.Start(context.Background(), filepath.Join(data, "mariadb"))
	require.NoError(t, err)
	defer server.Stop()
	s, err := store.Open(context.Background(), server.DSN("cuestart"))
	require.NoError(t, err)
	defer s.Close()
	raw, err := sql.Open("mysql", server.DSN("cuestart"))
	require.NoError(t, err)
	defer raw.Close()
	do(s, raw)
}

// Killed at any moment of its first start, it starts the next time.
func TestAFirstStartMayBeKilled(t *testing.T) {
	whole := up(t, t.TempDir())
	for n := range *startKills {
		data := t.TempDir()
		killed(t, data, rand.N(whole), n%3 == 2)
		up(t, data)
		os.RemoveAll(data)
	}
}

// Killed at any moment of an upgrade, from whichever version, it goes on at the next start with
// all that was there; and a copy of how it was is kept.
func TestAnUpgradeMayBeKilled(t *testing.T) {
	template := t.TempDir()
	ctx := context.Background()
	on(t, template, func(s *store.Store, raw *sql.DB) {
		require.NoError(t, s.MigrateTo(ctx, 1))
		for _, text := range []string{"INSERT INTO club (id, name, sport) VALUES (1, 'Hollinmere', 'Netball')",
			"INSERT INTO squad (id, club_id, name, grade) VALUES (5, 1, 'Firsts', 'club')",
			"INSERT INTO player (squad_id, number, first, last, position, foot, hand) SELECT 5, seq, " +
				"CONCAT('P', seq), 'Ros', '', 'both', 'right' FROM seq_1_to_300",
			"INSERT INTO venue (id, club_id, name, time_zone) VALUES (3, 1, 'Tidegate', 'Europe/London')",
			"INSERT INTO zone (venue_id, name, capacity, lanes, metres, surface) VALUES (3, 'Hall', 30, 5, 18, 'wood')",
			"INSERT INTO account (club_id, email, name, role, password_hash) VALUES (1, 'c@h.example', 'C', " +
				"'coach', 'x')"} {
			_, err := raw.Exec(text)
			require.NoError(t, err, text)
		}
	})
	newest := int64(0)
	for version := int64(1); *fromAll || version <= 14; version++ {
		if !*fromAll && version > 1 && version < 14 {
			continue
		}
		done := false
		on(t, template, func(s *store.Store, _ *sql.DB) {
			require.NoError(t, s.MigrateTo(ctx, version))
			is, pending, err := s.Pending(ctx)
			require.NoError(t, err)
			newest, done = is, !pending
		})
		if done {
			break
		}
		whole := up(t, copied(t, template))
		for n := range *startKills {
			data := copied(t, template)
			killed(t, data, rand.N(whole), n%3 == 2)
			if n%2 == 1 {
				killed(t, data, rand.N(whole), false) // and again
			}
			up(t, data)
			on(t, data, func(s *store.Store, raw *sql.DB) {
				var players, zones int
				require.NoError(t,
					raw.QueryRow("SELECT (SELECT COUNT(*) FROM player WHERE removed_at IS NULL), (SELECT "+
						"COUNT(*) FROM thing WHERE kind = 'zone')").Scan(&players,
						&zones))
				assert.Equal(t, []int{300, 1}, []int{players, zones}, "from %d", version)
				_, pending, err := s.Pending(ctx)
				require.NoError(t, err)
				assert.False(t, pending)
			})
			assert.DirExists(t, filepath.Join(data, "mariadb", "copies", fmt.Sprint("before-", version)))
			os.RemoveAll(data)
		}
		t.Logf("from version %d: %d kills, %s a whole upgrade", version, *startKills, whole.Round(10*time.Millisecond))
	}
	assert.GreaterOrEqual(t, newest, int64(14))
}

// copied is a data folder as another is.
func copied(t *testing.T, from string) string {
	to := filepath.Join(t.TempDir(), "data")
	out, err := exec.Command("cp", "-a", from, to).CombinedOutput()
	require.NoError(t, err, string(out))
	return to
}

// work is somebody who presses, says and edits, and knows what was acknowledged.
type work struct {
	mu     sync.Mutex
	events map[string]bool // acknowledged
	hurt   map[string]bool // the events after which somebody is hurt
	words  map[string]bool
	pains  map[string]bool
	edits  int // acknowledged
	sent   int // edits that were sent
}

func (w *work) keep(do func()) {
	w.mu.Lock()
	defer w.mu.Unlock()
	do()
}

// Killed again and again while people press, say that they hurt and edit: nothing that was
// acknowledged is lost, and nothing comes twice.
func TestNothingAcknowledgedIsLost(t *testing.T) {
	data, address := t.TempDir(), freePort(t)
	p := start(t, data, address, "demo")
	client := coach(t, p)
	answer, err := client.PostForm(p.address+"/sessions/1/publish", url.Values{"revision": {"1"}})
	require.NoError(t, err)
	answer.Body.Close()
	found := regexp.MustCompile(`/r/[\w-]{43}`).FindString(page(t, client, p.address+"/sessions/1/links"))
	require.NotEmpty(t, found)
	w := &work{events: map[string]bool{}, hurt: map[string]bool{}, words: map[string]bool{}, pains: map[string]bool{}}
	for kill := range *workKills {
		stop := make(chan bool)
		var all sync.WaitGroup
		for n, do := range []func(n int){
			func(n int) { presses(w, client, p.address, fmt.Sprint(kill, "-", n)) },
			func(n int) { tell(w, p.address+found, kill%20+1, fmt.Sprint(kill, "-", n)) },
			func(n int) { edits(w, client, p.address, n) },
		} {
			all.Go(func() {
				for i := 0; ; i++ {
					select {
					case <-stop:
						return
					default:
						do(i*10 + n)
					}
				}
			})
		}
		time.Sleep(300*time.Millisecond + rand.N(1200*time.Millisecond))
		if kill%3 == 1 {
			killDatabase(data)
			time.Sleep(rand.N(200 * time.Millisecond))
		}
		p.Process.Kill()
		close(stop)
		all.Wait()
		p.Wait()
		p = start(t, data, address, "demo")
	}
	time.Sleep(4 * time.Second) // what is due is finished
	p.Process.Signal(syscall.SIGTERM)
	p.Wait()
	on(t, data, func(_ *store.Store, raw *sql.DB) { w.check(t, raw) })
	t.Logf("%d kills; acknowledged: %d presses, %d of them with somebody hurt, %d words, %d pains, %d edits of %d sent",
		*workKills, len(w.events), len(w.hurt), len(w.words), len(w.pains), w.edits, w.sent)
}

func presses(w *work, client *http.Client, address, id string) {
	hurt := strings.HasSuffix(id, "0")
	events := []map[string]any{{"id": "d" + id, "at": time.Now().UnixMilli(), "kind": "note", "block": "raise",
		"says": id}}
	if hurt {
		events = append(events, map[string]any{"id": "h" + id, "at": time.Now().UnixMilli(), "kind": "change",
			"is": map[string]any{"is": "out", "who": []string{"p7"}, "why": "hurt"}})
	}
	text, _ := json.Marshal(events)
	answer, err := client.PostForm(address+"/pitch/4/press",
		url.Values{"events": {string(text)}, "have": {"100000000"}})
	if err != nil {
		return
	}
	body, err := io.ReadAll(answer.Body)
	answer.Body.Close()
	if err != nil || answer.StatusCode != http.StatusOK || strings.Contains(string(body), `"refused"`) ||
		!strings.HasPrefix(string(body), "{") {
		return
	}
	w.keep(func() {
		for _, e := range events {
			w.events[e["id"].(string)] = true
		}
		if hurt {
			w.hurt["h"+id] = true
		}
	})
}

func tell(w *work, link string, player int, id string) {
	for kind, kept := range map[string]map[string]bool{"sore": w.words, "pain": w.pains} {
		answer, err := http.PostForm(fmt.Sprintf("%s/p%d/say", link, player),
			url.Values{"kind": {kind}, "says": {"calf"}, "once": {kind + id},
				"pressed": {fmt.Sprint(time.Now().UnixMilli())}})
		if err != nil {
			return
		}
		answer.Body.Close()
		if answer.StatusCode == http.StatusNoContent {
			w.keep(func() { kept[kind+id] = true })
		}
	}
	time.Sleep(20 * time.Millisecond)
}

func edits(w *work, client *http.Client, address string, n int) {
	w.keep(func() { w.sent++ })
	revision := 0
	answer, err := client.Get(address + "/sessions/1")
	if err != nil {
		time.Sleep(50 * time.Millisecond)
		return
	}
	body, _ := io.ReadAll(answer.Body)
	answer.Body.Close()
	if m := regexp.MustCompile(`name="revision" value="(\d+)"`).FindStringSubmatch(string(body)); m != nil {
		revision, _ = strconv.Atoi(m[1])
	}
	answer, err = client.PostForm(address+"/sessions/1/head",
		url.Values{"revision": {fmt.Sprint(revision)}, "title": {fmt.Sprint("Title ", n, " ", time.Now().UnixNano())},
			"place": {"Tidegate"}, "start_name": {"kick-off"}, "method": {"ramp"}, "open": {"55"}})
	if err != nil {
		return
	}
	answer.Body.Close()
	if answer.StatusCode == http.StatusOK {
		w.keep(func() { w.edits++ })
	}
}

// check finds what was acknowledged, once.
func (w *work) check(t *testing.T, raw *sql.DB) {
	column := func(query string) map[string]int {
		rows, err := raw.Query(query)
		require.NoError(t, err)
		defer rows.Close()
		all := map[string]int{}
		for rows.Next() {
			var one string
			require.NoError(t, rows.Scan(&one))
			all[one]++
		}
		require.NoError(t, rows.Err())
		return all
	}
	for name, is := range map[string]struct {
		acknowledged map[string]bool
		kept         map[string]int
	}{"events": {w.events, column("SELECT once FROM run_event")},
		"words": {w.words, column("SELECT once FROM word WHERE kind = 'sore'")},
		"pains": {w.pains, column("SELECT once FROM hurt WHERE kind = 'pain'")}} {
		for id := range is.acknowledged {
			assert.Equal(t, 1, is.kept[id], "%s %s", name, id)
		}
		for id, n := range is.kept {
			assert.Equal(t, 1, n, "%s %s twice", name, id)
		}
	}
	var events, hurt, due, revision int
	require.NoError(t,
		raw.QueryRow(`SELECT (SELECT COUNT(*) FROM run_event WHERE kind = 'change'), (SELECT COUNT(*) FROM hurt WHERE kind = 'hurt'), (SELECT COUNT(*) FROM run WHERE due_by IS NOT NULL), (SELECT revision FROM team_session WHERE id = 1)`).
			Scan(&events, &hurt, &due, &revision))
	assert.Equal(t, events, hurt, "medical staff are told of every injury once")
	assert.GreaterOrEqual(t, hurt, len(w.hurt))
	assert.Zero(t, due, "what was taken is in force")
	assert.GreaterOrEqual(t, revision-1, w.edits)
	assert.LessOrEqual(t, revision-1, w.sent, "no edit is made twice")
}
