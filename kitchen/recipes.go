package kitchen

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"upbeatladle/document"
	"upbeatladle/store"
)

// KeptRecipe is a recipe that was kept with what goes with it.
type KeptRecipe struct {
	Variation store.Document
	Sauces    []store.Document
}

// KeepRecipe saves a variation and, each as a sauce of the house, the pots that it brings along: all of them or none. A repeated
// call with the same key returns what the first one saved. The error is Problems for what cannot be worked with.
func (k *Kitchen) KeepRecipe(ctx context.Context, data []byte, key string) (out KeptRecipe, err error) {
	v, err := document.DecodeVariation(data)
	if err != nil {
		return out, err
	}
	in, err := k.Setting(ctx)
	if err != nil {
		return out, err
	}
	asked, err := json.Marshal(v)
	if err != nil {
		return out, err
	}
	err = k.store.Together(ctx, func(tx *store.Tx) error {
		out = KeptRecipe{}
		for i := range v.Parts {
			p := &v.Parts[i]
			if p.Sauce == nil || p.SauceRef != nil {
				continue
			}
			body, err := p.Sauce.Encode()
			if err != nil {
				return err
			}
			sum, err := document.SummariseSauce(body, in)
			if err != nil {
				return err
			}
			potKey := ""
			if key != "" {
				potKey = fmt.Sprintf("%s/%d", key, i) // two may have one name
			}
			d, err := tx.Create(ctx, store.Sauce, ContentOf(sum), potKey)
			if err != nil {
				return err
			}
			p.SauceRef = &document.BaseRef{ID: d.ID, Revision: d.Revision}
			out.Sauces = append(out.Sauces, d)
		}
		body, err := v.Encode()
		if err != nil {
			return err
		}
		sum, err := document.SummariseVariation(ctx, body, in)
		if err != nil {
			return err
		}
		content := ContentOf(sum)
		content.Asked = asked
		out.Variation, err = tx.Create(ctx, store.Variation, content, key)
		return err
	})
	return out, err
}

// madeTogether is how far apart what one call made can be [s]: ids carry the time (RFC 9562, version 7).
const madeTogether = 2

// ForgetRecipe undoes KeepRecipe: it puts the variation aside and the sauces that came with it, unless they were changed since or
// something else uses them.
func (k *Kitchen) ForgetRecipe(ctx context.Context, id string) error {
	return k.store.Together(ctx, func(tx *store.Tx) error {
		came, err := cameWith(ctx, tx, id)
		if err != nil {
			return err
		}
		for _, sauce := range came {
			if err := tx.Delete(ctx, store.Sauce, sauce); err != nil {
				return err
			}
		}
		return tx.Delete(ctx, store.Variation, id)
	})
}

// BringRecipe undoes ForgetRecipe.
func (k *Kitchen) BringRecipe(ctx context.Context, id string) (out KeptRecipe, err error) {
	err = k.store.Together(ctx, func(tx *store.Tx) error {
		out = KeptRecipe{}
		if out.Variation, err = tx.Restore(ctx, store.Variation, id); err != nil {
			return err
		}
		v, err := document.DecodeVariation(out.Variation.Body)
		if err != nil {
			return err
		}
		for _, ref := range sauceRefs(v) {
			if apart(ref, id) > madeTogether*time.Second {
				continue
			}
			d, err := tx.Restore(ctx, store.Sauce, ref)
			if errors.Is(err, store.ErrNotFound) { // purged since
				continue
			}
			if err != nil {
				return err
			}
			out.Sauces = append(out.Sauces, d)
		}
		return nil
	})
	return out, err
}

// cameWith are the sauces that were made with a variation, that nobody changed and nothing else uses.
func cameWith(ctx context.Context, tx *store.Tx, id string) (out []string, err error) {
	d, err := tx.Get(ctx, store.Variation, id)
	if err != nil {
		return nil, err
	}
	v, err := document.DecodeVariation(d.Body)
	if err != nil {
		return nil, nil //nolint:nilerr // it names no sauce that could be read
	}
	all, err := tx.All(ctx, store.Variation)
	if err != nil {
		return nil, err
	}
	used := map[string]bool{}
	for _, other := range all {
		if o, err := document.DecodeVariation(other.Body); err == nil && other.ID != id {
			for _, ref := range sauceRefs(o) {
				used[ref] = true
			}
		}
	}
	for _, ref := range sauceRefs(v) {
		s, err := tx.Get(ctx, store.Sauce, ref)
		switch {
		case errors.Is(err, store.ErrNotFound):
		case err != nil:
			return nil, err
		case s.Revision == 1 && !used[ref] && apart(ref, id) <= madeTogether*time.Second:
			out = append(out, ref)
		}
	}
	return out, nil
}

func sauceRefs(v document.Variation) (out []string) {
	for _, p := range v.Parts {
		if p.SauceRef != nil {
			out = append(out, p.SauceRef.ID)
		}
	}
	return out
}

// apart is how long apart two ids were made; a day for what is no id of the program.
func apart(a, b string) time.Duration {
	x, errX := uuid.Parse(a)
	y, errY := uuid.Parse(b)
	if errX != nil || errY != nil || x.Version() != 7 || y.Version() != 7 {
		return 24 * time.Hour
	}
	at := func(id uuid.UUID) time.Time {
		s, ns := id.Time().UnixTime()
		return time.Unix(s, ns)
	}
	return at(x).Sub(at(y)).Abs()
}
