package keep_test

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"upbeatladle/core/batter"
	"upbeatladle/core/keep"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	const day = "2006-01-02"
	rules.Check(t, map[string]rules.Do{
		"value": func(_ testing.TB, g rules.Given) string {
			return fmt.Sprint(map[string]int{"oven low": keep.OvenLowC, "oven high": keep.OvenHighC, "oven": keep.OvenC, "hot us": keep.HotUSC, "hot uk": keep.HotUKC,
				"reheat": keep.ReheatC, "reheat uk": keep.ReheatUKC, "reheat uk min": keep.ReheatUKMin, "flat": keep.FlatMin, "cool": keep.CoolMin, "days": keep.KeepDays, "pack": keep.UsualPack}[g.At(0)])
		},
		"hold": func(_ testing.TB, g rules.Given) string {
			h := keep.HoldOf(batter.Form(g.At(0)))
			return fmt.Sprintf("%g min, %d on a tray", h.Minutes, h.OnTray)
		},
		"waits": func(t testing.TB, g rules.Given) string {
			r := keep.Rack{OvenOn: g.At(1) == "on", FoodC: g.F(t, 2)}
			return string(r.At(batter.Form(g.At(0)), time.Duration(g.F(t, 3)*float64(time.Minute))).State)
		},
		"said": func(t testing.TB, g rules.Given) string { return keep.Rack{OvenOn: true, FoodC: g.F(t, 0)}.Said() },
		"freeze": func(t testing.TB, g rules.Given) string {
			ok, _ := keep.MayFreeze(keep.Rack{OvenOn: true, FoodC: math.NaN()}.At(batter.Pancake, time.Duration(g.F(t, 0)*float64(time.Minute))))
			return rules.YesNo(ok)
		},
		"use by": func(t testing.TB, g rules.Given) string {
			made, err := time.Parse(day, g.At(0))
			if err != nil {
				t.Fatal(err)
			}
			return keep.UseBy(made).Format(day)
		},
		"packed": func(t testing.TB, g rules.Given) string {
			today := time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC)
			state, _, _ := keep.Packed(today.AddDate(0, 0, int(g.F(t, 0))), today, int(g.F(t, 1)))
			return string(state)
		},
		"reheat": func(_ testing.TB, g rules.Given) string {
			first, _, _ := strings.Cut(keep.Reheat(batter.Form(g.At(0)))[0], ", until")
			return first
		},
	})
}
