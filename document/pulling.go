package document

import (
	"context"
	"strconv"

	"upbeatladle/core/batch"
)

// mostPulled is how many bowls one list is for (modelling choice: more than a morning has).
const mostPulled = 12

// PullingWish names the bowls that a list is for.
type PullingWish struct {
	Variations []Variation `json:"variations"`
}

// Pull answers a PullingWish. The error is Problems.
func Pull(ctx context.Context, w PullingWish, s Setting) (batch.Pulling, error) {
	if len(w.Variations) == 0 || len(w.Variations) > mostPulled {
		return batch.Pulling{}, Refusal("/variations", "out_of_range", "A list is for 1 to %d bowls.", mostPulled)
	}
	var all []batch.Making
	for i := range w.Variations {
		at := "/variations/" + strconv.Itoa(i)
		v, k, err := inner(&w.Variations[i], at, s)
		if err != nil {
			return batch.Pulling{}, err
		}
		m, err := batch.Begin(ctx, v, k)
		if err != nil {
			return batch.Pulling{}, pointed(err, at)
		}
		all = append(all, m)
	}
	return batch.ToPull(all), nil
}
