package shelf_test

import (
	"bytes"
	"deepbay/internal/core/say"
	"encoding/csv"
	"reflect"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shelf"
)

func known(t testing.TB) func(part.ID) (part.Part, bool) {
	t.Helper()
	all, err := demo.Parts()
	if err != nil {
		t.Fatal(err)
	}
	return func(id part.ID) (part.Part, bool) {
		for _, p := range all {
			if p.ID == id {
				return p, true
			}
		}
		return part.Part{}, false
	}
}

// What is written is read again as it was, with nothing lost of what shorthand
// does not say, and no field of it is carried out by a spreadsheet.
func TestCSVRound(t *testing.T) {
	all, err := demo.Parts()
	if err != nil {
		t.Fatal(err)
	}
	var entries []shelf.Stock
	odd := []string{`=HYPERLINK("x")`, "+1", "-2", "@sum", "'quoted", "''twice", "'=1", "'"}
	for i, p := range all {
		if i < len(odd) {
			p.Name = odd[i]
		}
		entries = append(entries, shelf.Stock{Part: p, Count: i, Price: shelf.Cents(100*i + 5), Condition: []shelf.Grade{shelf.New, shelf.Used, shelf.Tested}[i%3], Serials: []string{"A-" + string(p.ID), "B,1"}})
	}
	var b bytes.Buffer
	if err := shelf.WriteCSV(&b, entries); err != nil {
		t.Fatal(err)
	}
	rows, err := csv.NewReader(bytes.NewReader(b.Bytes())).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	for _, row := range rows {
		for _, field := range row {
			if strings.ContainsRune("=+-@", rune((field + " ")[0])) {
				t.Errorf("a spreadsheet carries out %q", field)
			}
		}
	}
	got, problems, err := shelf.ReadCSV(bytes.NewReader(b.Bytes()), known(t))
	if err != nil || len(problems) > 0 || !reflect.DeepEqual(got, entries) {
		t.Errorf("%v, %v\n%+v\nwant\n%+v\n%s", err, problems, got, entries, b.String())
	}
}

// A bad row is named by line and column; the good ones are taken.
func TestCSVProblems(t *testing.T) {
	text := strings.Join([]string{
		"ID, Name ,shorthand,count,price,condition,serials",
		"a,Drive A,1TB nvme 2280 gen4 x4,2,89.50,new,S1 S2",
		"b,Drive B,1TB banana,1,,,",
		"c,Drive C,1TB sata 2.5,many,free,broken,",
		"raft-4,,,1,,used,",
		"nobody,,,1,,,",
		"d,\"Two",
		"lines\",16GB DDR4-3200 DIMM,4,,,",
		"e,E,8TB 3.5 hdd,-1,1.234,,",
		"Two Words,F,8TB 3.5 hdd,1,,,",
	}, "\n")
	got, problems, err := shelf.ReadCSV(strings.NewReader(text), known(t))
	if err != nil {
		t.Fatal(err)
	}
	var taken, wrong []string
	for _, e := range got {
		taken = append(taken, string(e.Part.ID)+" "+e.Price.String())
	}
	for _, p := range say.Plain.Rows(problems) {
		wrong = append(wrong, p.Error())
	}
	if s := strings.Join(taken, ", "); s != "a 89.50, raft-4 , d " {
		t.Errorf("taken: %s", s)
	}
	want := []string{`line 3, shorthand: "banana" means nothing here`, `line 4, count: "many" is not a count`, `line 4, price: "free" is not a price`, `line 4, condition: "broken" is not new, used or tested`,
		`line 6, shorthand: is empty, and no part on the shelf is named "nobody"`, `line 9, count: "-1" is not a count`, `line 9, price: "1.234" is not a price`, `line 10, id: "Two Words" is no id`}
	if len(wrong) != len(want) {
		t.Fatalf("%s", strings.Join(wrong, "\n"))
	}
	for i := range want {
		if !strings.HasPrefix(wrong[i], want[i]) {
			t.Errorf("%s, want %s", wrong[i], want[i])
		}
	}
	for text, want := range map[string]string{"": "no head line", "name,price\n": `no column "id"`} {
		if _, _, err := shelf.ReadCSV(strings.NewReader(text), known(t)); err == nil || !strings.Contains(say.Plain.Err(err).Error(), want) {
			t.Errorf("%q: %v", text, err)
		}
	}
	if _, problems, err := shelf.ReadCSV(strings.NewReader("id,count\na,\"1"), known(t)); err != nil || len(problems) != 1 || problems[0].Line == 0 {
		t.Errorf("a broken quote: %v, %v", problems, err)
	}
}

func FuzzReadCSV(f *testing.F) {
	f.Add("id,shorthand,count\na,16GB DDR4-3200 DIMM,1\n")
	f.Add("id,count,price\nraft-4,1,2.5\n\"")
	find := known(f)
	f.Fuzz(func(t *testing.T, text string) {
		entries, problems, err := shelf.ReadCSV(strings.NewReader(text), find)
		if err != nil {
			return
		}
		for _, p := range problems {
			if !p.Fact.Is() || p.Line < 1 {
				t.Fatalf("%q: a problem without a place: %+v", text, p)
			}
		}
		for _, e := range entries {
			if e.Count < 0 || e.Price < 0 || len(e.Part.Validate()) > 0 || e.Part.ID.Check() != nil {
				t.Fatalf("%q: taken: %+v", text, e)
			}
		}
	})
}
