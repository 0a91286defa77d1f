package server_test

import (
	"flag"
	"fmt"
	"math/rand"
	"net/http"
	"testing"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/coretest/jobs"
	"deepbay/internal/store"
)

// randomJobs is how many random jobs are attacked, and every how-manyth placement is tried; make
// soak asks for more of both.
var (
	randomJobs = flag.Int("attacked", 4, "random jobs in TestEveryPlacement")
	apart      = flag.Int("apart", 3, "every how-manyth placement TestEveryPlacement tries")
)

// TestEveryPlacement puts every item of every demo job, and of random ones, into every
// socket of its machine, one after the other, whatever lies there and whatever it is: each
// is carried out or refused, the job can be read, and the list and the rest stay alive.
func TestEveryPlacement(t *testing.T) {
	s := filled(t)
	h := serving(t, s)
	var ids []job.ID
	for seed := range int64(*randomJobs) {
		j := jobs.Random(rand.New(rand.NewSource(seed)))
		j.ID = job.ID(fmt.Sprint("random-", seed))
		if _, err := s.Put(t.Context(), store.Write{Job: j, Done: fact.Of(job.TookIn), Stamp: job.Stamp{By: "chance", At: now}}); err != nil {
			t.Fatal(err)
		}
	}
	list, err := s.Jobs(t.Context(), store.Page{})
	if err != nil {
		t.Fatal(err)
	}
	for _, k := range list.Stands {
		ids = append(ids, k.ID)
	}
	met, tried, done := 0, 0, 0
	for _, id := range ids {
		path := "/api/jobs/" + string(id)
		v := ask(t, h, "GET", path, "").view()
		revision := v.Revision
		for _, item := range v.View.Job.Items {
			for _, socket := range v.View.Job.Sheet.Sockets {
				if met++; met%*apart != 0 {
					continue
				}
				in := []job.State{job.InFound, job.InPlanned}[tried%2]
				tried++
				a := ask(t, h, "POST", path+"/changes", change(revision, fmt.Sprintf(`{"do":"place","in":%q,"item":%q,"socket":%q}`, in, item.ID, socket.ID)))
				switch a.Code {
				case http.StatusOK:
					done++
					revision = a.view().Revision
				case http.StatusUnprocessableEntity:
				default:
					t.Fatalf("%s: %s into %s: %d %.300s", id, item.ID, socket.ID, a.Code, a.Body)
				}
			}
		}
		if now := ask(t, h, "GET", path, "").view(); now.Revision != revision {
			t.Errorf("%s is at revision %d, and %d was answered", id, now.Revision, revision)
		}
		cards := bench(t, h, "")
		if len(cards) != len(ids) {
			t.Fatalf("after %s the list has %d jobs of %d", id, len(cards), len(ids))
		}
		for _, c := range cards {
			if c.Ill.String() == "" {
				continue
			}
			t.Errorf("after %s, %s is ill: %v", id, c.ID, c.Ill)
		}
	}
	if done < tried/2 {
		t.Errorf("of %d placements only %d were carried out", tried, done)
	}
	t.Logf("%d placements, %d carried out", tried, done)
}
