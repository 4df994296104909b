package card

import (
	"fmt"
	"net/http"

	"valiantmule/internal/web/desk"
)

// cardView is the card as it is printed.
type cardView struct {
	Has             bool
	Name, Bike      string
	Loadout         string
	On              string
	Blocks          []block
	Empty           []desk.LinkView // sections that have nothing to say yet, with where that is said
	Choose, Buttons string
}

func cardPage(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	return s.ShowPage(w, r, http.StatusOK, d, "card", nil, cardOf(d))
}

// mostRows is how many rows a section takes: with more the card would not fit on its two sides.
const mostRows = 14

func cardOf(d *desk.Desk) cardView {
	v := cardView{Has: d.Plan.Bike != nil, Name: d.Plan.Name, Bike: d.Plan.BikeName(), On: d.AsOf, Choose: d.Href("on-card"), Buttons: d.Href("buttons")}
	if l, err := d.Plan.Loadout(d.Loadout); err == nil {
		v.Loadout = l.Name
	}
	if !v.Has {
		return v
	}
	m := makerOf(d)
	for _, section := range chosen(&d.Plan.Card) {
		b := block{ID: section.id, Name: section.name}
		section.fill(m, &b)
		if more := len(b.Rows) - mostRows; more > 0 {
			b.Rows = b.Rows[:mostRows]
			b.Lines = append(b.Lines, fmt.Sprintf("… and %d more, that are not on the card.", more))
		}
		if !b.empty() {
			v.Blocks = append(v.Blocks, b)
		} else if b.Asks.Href != "" {
			v.Empty = append(v.Empty, desk.LinkView{Name: section.name, Href: b.Asks.Href})
		}
	}
	return v
}
