package demo

import (
	"context"
	"fmt"

	"valiantmule/internal/core/garage"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/core/sheet"
	"valiantmule/internal/core/unit"
	"valiantmule/internal/store"
)

// things are the demo rider's parts beside those of the plans: some at home, one sold, and a tool roll that goes from
// bike to bike.
func things(ctx context.Context, st *store.Store, rider, holt, averill string) error {
	km := func(n int) (at unit.Length) {
		if err := at.Enter(fmt.Sprint(n), "km"); err != nil {
			panic(err) // a number is one
		}
		return at
	}
	kg := func(text string) (m unit.Mass) {
		if err := m.Enter(text, "kg"); err != nil {
			panic(err)
		}
		return m
	}
	sprocket := parts.Counted(parts.RearSprocket, 45)
	sprocket.ID, sprocket.Name, sprocket.Mass = "own-roadsprocket", "Road sprocket, 45 T", kg("0.9")
	for i, one := range []struct {
		thing  garage.Thing
		events []garage.Event
	}{
		{
			garage.Thing{Part: &parts.Part{ID: "own-toolroll00", Slot: parts.ToolTube, Name: "Canvas tool roll", Mass: kg("2.4")}, Cost: money.New(6400, "EUR"), Source: plan.HomeMade, Bought: "2026-03-14", For: holt},
			[]garage.Event{
				{To: garage.On, Bike: holt, Day: "2026-03-15", At: km(19800), Note: "Strap turned twice round the tube, buckle inwards."},
				{To: garage.On, Bike: averill, Day: "2026-10-02", Off: km(22950), Until: "2027-03-01"},
			},
		},
		{
			garage.Thing{Part: sprocket, Cost: money.New(5200, "EUR"), Bought: "2026-02-20", For: holt},
			[]garage.Event{{To: garage.Home, Day: "2026-02-20"}},
		},
		{
			garage.Thing{Part: &parts.Part{ID: "own-tallscreen", Slot: parts.Windscreen, Name: "Tall screen", Mass: kg("1.3")}, Cost: money.New(14900, "EUR"), Bought: "2026-04-02", For: holt},
			[]garage.Event{
				{To: garage.On, Bike: holt, Day: "2026-04-06", At: km(20140), Note: "Upper bolt filed 2 mm; a wrench does not reach it."},
				{To: garage.Sold, Day: "2026-08-18", Off: km(22100), Money: money.New(9000, "EUR"), Whom: "a neighbour"},
			},
		},
		{
			garage.Thing{Part: &parts.Part{ID: "own-strapset000", Slot: parts.OtherPart, Name: "Strap set, four", Mass: kg("0.4")}, Cost: money.New(2800, "EUR"), Bought: "2026-05-09"},
			[]garage.Event{{To: garage.Home, Day: "2026-05-09"}, {To: garage.Lent, Day: "2026-09-20", Whom: "Ines", Until: "2026-11-15"}},
		},
	} {
		one.thing.Part.Origin = sheet.Rider
		for j, e := range one.events {
			act := garage.DerivedID(rider, 10*i+j)
			e.Thing = garage.DerivedID(rider, 1000+i)
			do := store.Act{ID: act, Day: e.Day, Events: []garage.Event{e}}
			if j == 0 {
				one.thing.ID = e.Thing
				do.Put = []garage.Thing{one.thing}
			}
			if err := st.Do(ctx, rider, do); err != nil {
				return err
			}
		}
	}
	return nil
}
