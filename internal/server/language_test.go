package server_test

import (
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"maps"
	"net/url"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"deepbay/demo"
	"deepbay/docs/schema"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shorthand"
	"deepbay/internal/core/volume"
	"deepbay/internal/format"
	"deepbay/internal/layouts"
	"deepbay/internal/probe"
	"deepbay/internal/server"
)

// marked is a second, mechanical language: every sentence wrapped in a mark.
func marked(s string) string { return "⟦" + s + "⟧" }

// TestSecondLanguage runs the whole API in a second language: whatever comes out and is
// not wrapped is a name or a word that people typed, a value of a list of the formats, or
// one word without a blank that names something.
func TestSecondLanguage(t *testing.T) {
	h, err := server.New(server.Options{Data: filled(t), Version: "test", Now: func() time.Time { return now }, Language: marked, Patience: time.Hour,
		Log: slog.New(slog.NewTextHandler(io.Discard, nil)), Files: fstest.MapFS{"index.html": {Data: []byte(page)}}})
	if err != nil {
		t.Fatal(err)
	}
	typed := typedWords(t)
	typed[probe.Ask], typed["A1: 16GB DDR4 DIMM"] = true, true // a line for another shell, one of what lies in a machine
	sentences := 0
	asked := map[string]bool{} // methods and paths
	check := func(method, path, body string) []byte {
		t.Helper()
		a := ask(t, h, method, path, body)
		asked[method+" "+path] = true
		if a.Code >= 500 {
			t.Fatalf("%s %s: %d %s", method, path, a.Code, a.Body)
		}
		var doc any
		if err := json.Unmarshal(a.Body.Bytes(), &doc); err != nil {
			t.Fatalf("%s %s: %v", method, path, err)
		}
		unwrapped(doc, "", func(at, text string) {
			if strings.HasPrefix(text, "⟦") {
				sentences++
				if !strings.HasSuffix(text, "⟧") {
					t.Errorf("%s %s: %s is half wrapped: %q", method, path, at, text)
				}
				return
			}
			if !typed[text] && prose.MatchString(text) {
				t.Errorf("%s %s: %s is not wrapped: %q", method, path, at, text)
			}
		})
		return a.Body.Bytes()
	}
	var list server.JobList
	if err := json.Unmarshal(check("GET", "/api/jobs", ""), &list); err != nil {
		t.Fatal(err)
	}
	for i, c := range list.Jobs {
		at := "/api/jobs/" + string(c.ID)
		var v server.JobView
		if err := json.Unmarshal(check("GET", at, ""), &v); err != nil {
			t.Fatal(err)
		}
		for _, it := range v.View.Job.Items {
			check("GET", at+"/offers/"+string(it.ID), "")
		}
		check("POST", at+"/plan", fmt.Sprintf(`{"useShelf":%t}`, i%3 == 0)) // the shelf makes a search long, and adds few words
		check("POST", at+"/why-not", `{"item":"nobody","socket":"nowhere"}`)
		for i, it := range v.View.Job.Items {
			if i == 3 {
				break // each is a search, and they say the same things
			}
			check("POST", at+"/why-not", `{"item":`+quoted(string(it.ID))+`,"socket":`+quoted(string(v.View.Job.Sheet.Sockets[0].ID))+`}`)
		}
		check("POST", at+"/keep", `{"fact":{"socket":"nowhere","attr":"key"}}`)
		check("GET", at+"?stage=1", "")
		check("GET", at+"/sheet", "")
		check("POST", at+"/sheet", `{"revision":1}`)
		check("POST", at+"/again", `{"revision":1}`)
		check("POST", at+"/keep-part", `{"item":"item-1"}`)
		check("POST", at+"/proven", `{"of":"memory"}`)
		check("GET", at+"/bench", "")
		check("GET", at+"/trouble", "")
		check("POST", at+"/invite", "")
		check("GET", at+"/sim", "")
		check("POST", at+"/sim", `{"do":"make","count":1,"seed":3}`)
		for _, do := range []string{`{"do":"start"}`, `{"do":"check","check":"seat@A1"}`, `{"do":"check","check":"gaze"}`, `{"do":"hands","hands":"reseat","socket":"A1"}`, `{"do":"mend","fault":"half-seated@A1"}`, `{"do":"set","setting":"none","value":"x"}`, `{"do":"reveal"}`, `{"do":"stop"}`, `{"do":"take"}`, `{"do":"start"}`} {
			check("POST", at+"/sim", do)
		}
		check("GET", at+"/pictures", "")
		check("POST", at+"/differs", `{"id":1}`)
		check("POST", at+"/shop", `{"memoryBytes":34359738368}`)
		revision := v.Revision
		do := func(change string) {
			check("POST", at+"/changes", `{"revision":`+itoa(revision)+`,"by":"Runa","change":`+change+`}`)
			if a := ask(t, h, "GET", at, ""); a.Code == 200 {
				revision = a.view().Revision
			}
		}
		for _, step := range v.View.Order[:min(3, len(v.View.Order))] {
			do(`{"do":"tick","step":` + quoted(string(step.ID)) + `}`)
		}
		for _, l := range v.View.Lines {
			do(`{"do":"confirm","line":` + quoted(l.ID.String()) + `}`)
			do(`{"do":"read","line":` + quoted(l.ID.String()) + `,"text":"not there"}`)
		}
		for _, f := range v.View.Planned.Findings {
			for _, m := range f.Missing {
				b, _ := json.Marshal(m.Fact)
				do(`{"do":"look","value":"nonsense","fact":` + string(b) + `}`)
			}
		}
		do(`{"do":"check","check":{"check":"restart","is":"same"}}`)
		do(`{"do":"check","check":{"check":"gaze","is":"same"}}`)
		do(`{"do":"cure","value":"supply-off"}`)
		check("GET", at+"/trouble", "")
		do(`{"do":"measure","measured":[{"id":1,"what":"load","when":"before","of":"x","runs":[40,41]},{"id":1,"what":"load","when":"after","of":"x","runs":[20,21]},{"id":1,"what":"sound-idle","when":"after","runs":[31],"background":[30]},{"id":1,"what":"heat-idle","when":"before","runs":[40]}]}`)
		do(`{"do":"measure","measured":[{"id":1,"what":"nothing","when":"before","runs":[0]},{"id":1,"what":"load","when":"then","blockBytes":512,"runs":[0]}]}`)
		check("GET", at+"/gains", "")
		do(`{"do":"unmeasure","value":"1"}`)
		drives := ""
		for _, it := range v.View.Job.Items {
			if p := v.View.Job.Part(it.Part); p.Drive != nil {
				drives += "&item=" + string(it.ID)
			}
		}
		check("GET", at+"/arrays?perYear=0.02"+drives, "")
		check("GET", at+"/arrays?years=99", "")
		var blank struct {
			Drives []struct {
				Item   rig.ItemID
				Layout volume.Layout
			}
		}
		json.Unmarshal(check("GET", at+"/volumes?system=ext4", ""), &blank)
		check("GET", at+"/volumes?system=zfs", "")
		check("POST", at+"/volumes", `{"item":"nobody","table":"mbr","volumes":[{"fileSystem":"ntfs"}]}`)
		for _, d := range blank.Drives {
			l, _ := json.Marshal(d.Layout)
			check("POST", at+"/volumes", string(l))
			do(`{"do":"layout","layout":` + string(l) + `}`)
			check("POST", at+"/volumes", `{"item":`+quoted(string(d.Item))+`,"table":"mbr","volumes":[{"fileSystem":"fat32","bytes":99999999999999,"label":"a/b","at":"Q"}]}`)
			do(`{"do":"no layout","value":` + quoted(string(d.Item)) + `}`)
		}
		for _, it := range v.View.Job.Items {
			do(`{"do":"wipe","item":` + quoted(string(it.ID)) + `,"value":"purge","sure":true,"text":` + quoted(it.Serial) + `}`)
			do(`{"do":"wipe","item":` + quoted(string(it.ID)) + `,"value":"scrub"}`)
			do(`{"do":"unwipe","item":` + quoted(string(it.ID)) + `}`)
		}
		do(`{"do":"layout","layout":{"item":"item-1","table":"gpt","volumes":[{"fileSystem":"ntfs"}]}}`)
		check("GET", at+"/arrays?item=nobody", "")
		do(`{"do":"place","item":"nobody","socket":"nowhere"}`)
		do(`{"do":"close"}`)
		check("POST", at+"/changes", `{"revision":1,"change":{"do":"close"}}`)
		check("POST", at+"/undo", `{"revision":`+itoa(revision)+`}`)
		sheet := v.View.Job.Sheet
		change := func(revision int, back string) {
			b, err := json.Marshal(sheet)
			if err != nil {
				t.Fatal(err)
			}
			check("PUT", "/api/sheets/"+string(sheet.ID), `{"revision":`+itoa(revision)+`,"by":"Runa"`+back+`,"sheet":`+string(b)+`}`)
		}
		sheet.Sockets = slices.Clone(sheet.Sockets[1:])
		sheet.Chassis.LowSlots = quantity.Yes
		change(1, "")
		sheet.Class = machine.Small
		change(1, "")
		change(2, `,"back":1`)
		check("GET", "/api/sheets/"+string(sheet.ID), "")
		check("GET", "/api/sheets/"+string(sheet.ID)+"?at=x", "")
		b, err := json.Marshal(sheet)
		if err != nil {
			t.Fatal(err)
		}
		check("POST", "/api/sheets", string(b))
	}
	for _, path := range []string{"/api/sheets", "/api/layouts", "/api/parts", "/api/shelf", "/api/health", "/api/nothing", "/api/jobs/nobody", "/api/ask/link?gen=4&lanes=4", "/api/ask/uplink?upGen=3&upLanes=4&gen=3&lanes=4&count=3", "/api/ask/capacity?text=500GB",
		"/api/ask/code?text=12800", "/api/ask/part?text=" + "1TB+nvme+2280+gen4+x4", "/api/ask/part?text=banana", "/api/ask/part?text=2x16GB+DDR5-6000+ECC+1.1V+2R", "/api/ask/part?text=2280-D2-M+2s+heatsink", "/api/ask/part?text=16GB+2Rx8+PC3L-12800S-11-11-F3", "/api/ask/keys?key=M&protocols=pcie", "/api/ask/population?sheet=harrier-t4&text=2x16+DDR4-3200", "/api/ask/population?sheet=harrier-t4&text=x", "/api/ask/nonsense", "/api/ask/sum?text=2TB-500GB", "/api/ask/sum?text=much", "/api/ask/array?text=4x2TB&level=5", "/api/ask/array?text=2TB&level=5", "/api/ask/copy?text=2TB&mean=100KB&reads=540&writes=7GB/s", "/api/ask/copy?text=2TB&reads=slow", "/api/ask/sounds?text=34+30&room=29", "/api/ask/sounds?text=loud", "/api/ask/prices?text=2x16GB+79.90", "/api/ask/prices?text=x"} {
		check("GET", path, "")
	}
	check("POST", "/api/sheets/harrier-t4/pictures", "")
	check("POST", "/api/sheets/harrier-t4/pictures?says=page+3", "no picture")
	check("GET", "/api/sheets/harrier-t4/pictures/nothing", "")
	check("DELETE", "/api/sheets/harrier-t4/pictures/nothing", "")
	check("POST", "/api/jobs/rain-gauge-logger/pictures?says=inside", "no picture")
	check("GET", "/api/jobs/rain-gauge-logger/pictures/nothing", "")
	check("DELETE", "/api/jobs/rain-gauge-logger/pictures/nothing", "")
	check("POST", "/api/jobs", `{"title":"x","sheet":"nobody","wish":{}}`)
	check("POST", "/api/jobs", `{"title":"A new one","sheet":"harrier-t4","wish":{}}`)
	check("POST", "/api/jobs", `{`)
	check("POST", "/api/jobs/echo-sounding-tower/back", `{}`)
	check("POST", "/api/jobs/nobody/back", `{}`)
	for _, k := range shorthand.Kinds() {
		for _, f := range shorthand.Fields(k) {
			typed[f.Example] = true
			for _, c := range f.Choices {
				typed[c.Word] = true
			}
		}
		check("POST", "/api/form", fmt.Sprintf(`{"kind":%q}`, k))
		var values []string
		for _, f := range shorthand.Fields(k) {
			word := f.Example
			if len(f.Choices) > 0 {
				word = f.Choices[0].Word
			}
			named := shorthand.Fill(k, map[string]string{f.Name: word}, nil)
			typed[named.Part.Name], typed["box M.2"] = true, true
			values = append(values, fmt.Sprintf(`{"name":%q,"value":%q}`, f.Name, word), fmt.Sprintf(`{"name":%q,"value":"banana"}`, f.Name))
			for _, one := range values[len(values)-2:] {
				check("POST", "/api/form", fmt.Sprintf(`{"kind":%q,"values":[%s]}`, k, one))
			}
		}
	}
	check("POST", "/api/form", `{"kind":"boat"}`)
	check("POST", "/api/observations", `{"format":"deepbay/observation","version":1,"readings":[]}`)
	check("POST", "/api/observations", `{"format":"deepbay/observation","version":2}`)
	check("POST", "/api/observations", `{"memory":{"Capacity":"17179869184","DeviceLocator":"A1"},"disks":[]}`)
	check("POST", "/api/observations", `{"memory":{"Capacity":"much"}}`)
	check("POST", "/api/measurements", `{"jobs":[]}`)
	check("POST", "/api/measurements", "what,value\nload,20")
	check("POST", "/api/measurements", "what,value\nspeed,0,,")
	check("POST", "/api/drafts", `{"memory":{"Capacity":"17179869184","DeviceLocator":"A1","FormFactor":8,"SMBIOSMemoryType":26},"disks":[]}`)
	check("POST", "/api/drafts", `{"format":"deepbay/observation","version":1,"readings":[]}`)
	lines, err := os.ReadFile("../core/shorthand/testdata/lines.txt")
	if err != nil {
		t.Fatal(err)
	}
	typed["molex to sata"], typed["molex to 2x sata"] = true, true // words to be added to a line
	for i, line := range strings.Split(string(lines), "\n") {
		text, _, ok := strings.Cut(line, " => ")
		if q := url.QueryEscape(text); ok {
			typed[text], typed["A1: "+text] = true, true
			check("GET", "/api/ask/part?text="+q, "")
			if i%10 == 0 {
				check("GET", "/api/sheets/harrier-t4/written?text="+url.QueryEscape("A1: ")+q, "")
				check("GET", "/api/jobs/echo-sounding-tower/written?text="+q, "")
			}
		}
	}
	check("GET", "/api/jobs/echo-sounding-tower/written?text="+strings.Repeat("x", 5000), "")
	check("GET", "/api/jobs/echo-sounding-tower/written?text=A1:empty%0AQ7:8GB%0AA1:x", "")
	check("GET", "/api/jobs/nobody/written", "")
	for _, line := range []string{"32 GB and a fast 1 TB for HS-0417", "256 GB, 8 GB more memory, 16 GB memory and 32 GB memory for AB-12, 1 TB drive, 2 TB disk",
		"a new machine harrier-t4, not encrypted, memory test, self-test, under load, backed up on tape, do not touch the logs, 4 TB for data", "encrypted, 1 TB", strings.Repeat("x", 400)} {
		typed[line] = true
		for _, words := range []string{"the logs", "a new machine", "not encrypted", "memory test", "under load", "backed up on tape", "do not touch the logs"} {
			typed[words] = true
		}
		check("GET", "/api/intake?text="+url.QueryEscape(line), "")
	}
	check("GET", "/api/sheets/nobody/written", "")
	check("GET", "/api/jobs/nobody/raw", "")
	check("GET", "/api/practice", "")
	check("PUT", "/api/practice", `{"revision":0,"practice":[{"question":"earth","school":"cups"}]}`)
	check("PUT", "/api/practice", `{"revision":7,"practice":[]}`)
	check("POST", "/api/shelf/words", `{"text":"1TB banana"}`)
	check("POST", "/api/shelf/words", `{"text":"1TB nvme 2280 gen4 x4","price":"free"}`)
	typed["1TB nvme M.2 2280 gen4 x4 1s"] = true // what people type is what the part is called
	check("POST", "/api/shelf/words", `{"text":"1TB nvme 2280 gen4 x4 1s","by":"Runa"}`)
	check("POST", "/api/shelf", `{"part":{}}`)
	check("GET", "/api/jobs?q=tower", "")
	check("GET", "/api/owner?name=nobody", "")
	check("GET", "/api/owner?name=", "")
	check("GET", "/api/owner?name=Lock-keepers,%20gate%202", "")
	check("GET", "/api/owner/file?name=nobody", "")
	check("POST", "/api/owner/forget", `{"owner":"nobody","jobs":1,"by":""}`)
	check("GET", "/api/gone", "")
	check("GET", "/api/damaged/part/nothing", "")
	check("POST", "/api/damaged/part/raft-4/back", `{}`)
	asked["GET /api/searches/none"] = true // of a search that is over nothing is said
	check("GET", "/api/jobs?after=nowhere", "")
	check("GET", "/api/shelf?after=nothing", "")
	check("GET", "/api/shelf/parts/raft-4", "")
	check("GET", "/api/shelf/parts/nothing", "")
	check("GET", "/api/shelf/parts/raft-4/history", "")
	check("GET", "/api/shelf/parts/nothing/history", "")
	check("POST", "/api/shelf/csv", "id,count\nraft-4,many\n")
	check("POST", "/api/shelf/csv", "x\n")
	check("POST", "/api/files", `{"format":"deepbay/part","version":1,"id":"x","name":"x"}`)
	check("DELETE", "/api/jobs", "")
	check("GET", "/api/jobs/hydrophone-listening-desk/transfers", "")
	for _, how := range []string{"fresh", "clone", "swap"} {
		for _, rest := range []string{"", `,"bytes":300000000000,"table":"mbr","start":"uefi","encrypted":true,"firstSector":63`, `,"bytes":300000000000,"table":"gpt","start":"uefi","firstSector":2048,"sameSectors":true,"meanFile":100000`, `,"bytes":9000000000000`} {
			check("POST", "/api/jobs/hydrophone-listening-desk/transfers", `{"id":1,"how":"`+how+`","from":"item-1","to":"item-6"`+rest+`}`)
		}
	}
	check("POST", "/api/jobs/hydrophone-listening-desk/transfers", `{"id":1,"how":"swim"}`)
	for _, q := range []string{"", "?q=cover", "?q=nothing+like+it", "?kind=boat", "?from=soon", "?after=x", "?kind=part&q=screws"} {
		check("GET", "/api/logbook"+q, "")
	}
	check("GET", "/api/logbook/file?as=xml", "")
	check("GET", "/api/life?job=echo-sounding-tower", "")
	check("GET", "/api/life?serial=SKB-40117", "")
	check("GET", "/api/life?serial=SKB-40131", "")
	check("GET", "/api/life?serial=nobody", "")
	check("GET", "/api/life?job=nobody", "")
	check("GET", "/api/models/dotterel-m4", "")
	check("GET", "/api/models/nobody", "")
	check("GET", "/api/figures?months=24", "")
	check("GET", "/api/figures?months=many", "")
	check("POST", "/api/shop", "a letter")
	for _, r := range server.Routes() {
		if !strings.HasSuffix(r, "/file") && !strings.HasSuffix(r, "GET /api/shelf/csv") && !slices.ContainsFunc(slices.Collect(maps.Keys(asked)), func(a string) bool { return pattern(r).MatchString(a) }) {
			t.Errorf("%s is not asked", r)
		}
	}
	if sentences < 2000 {
		t.Errorf("only %d sentences were wrapped", sentences)
	}
	t.Logf("%d sentences", sentences)
}

// prose is text with a blank between words: what is one word is a name or a code.
var prose = regexp.MustCompile(`\pL+ \pL`)

// pattern is what a route takes, with or without a query.
func pattern(route string) *regexp.Regexp {
	return regexp.MustCompile("^" + regexp.MustCompile(`:\w+`).ReplaceAllString(route, `[^/?]+`) + `(\?.*)?$`)
}

func quoted(s string) string { b, _ := json.Marshal(s); return string(b) }
func itoa(n int) string      { b, _ := json.Marshal(n); return string(b) }

// unwrapped walks all texts of a document.
func unwrapped(v any, at string, do func(at, text string)) {
	switch v := v.(type) {
	case string:
		do(at, v)
	case []any:
		for _, x := range v {
			unwrapped(x, at+"[]", do)
		}
	case map[string]any:
		for k, x := range v {
			unwrapped(x, at+"/"+k, do)
		}
	}
}

// typedWords is every text of the demo's files and layouts, and every value of a list of
// the formats.
func typedWords(t *testing.T) map[string]bool {
	t.Helper()
	out := map[string]bool{"A new one": true, "not there": true, "someone": true, "the demo shop": true}
	add := func(b []byte) {
		var doc any
		if json.Unmarshal(b, &doc) == nil {
			unwrapped(doc, "", func(_, text string) { out[text] = true })
		}
	}
	sheets, err := layouts.All()
	if err != nil {
		t.Fatal(err)
	}
	b, err := json.Marshal(sheets)
	if err != nil {
		t.Fatal(err)
	}
	add(b)
	for _, dir := range []string{"jobs", "sheets", "parts"} {
		files, err := demo.Files.ReadDir(dir)
		if err != nil {
			t.Fatal(err)
		}
		for _, f := range files {
			b, err := demo.Files.ReadFile(dir + "/" + f.Name())
			if err != nil {
				t.Fatal(err)
			}
			add(b)
			if j, err := format.Job(b); dir == "jobs" && err == nil {
				out[j.Evidence()] = true // names and titles, as typed
			}
		}
	}
	b, err = schema.Files.ReadFile("api.schema.json")
	if err != nil {
		t.Fatal(err)
	}
	var doc any
	if err := json.Unmarshal(b, &doc); err != nil {
		t.Fatal(err)
	}
	var enums func(v any)
	enums = func(v any) {
		switch v := v.(type) {
		case []any:
			for _, x := range v {
				enums(x)
			}
		case map[string]any:
			for k, x := range v {
				if list, ok := x.([]any); ok && k == "enum" {
					for _, e := range list {
						if s, ok := e.(string); ok {
							out[s] = true
						}
					}
				}
				enums(x)
			}
		}
	}
	enums(doc)
	return out
}
