package plan

import (
	"valiantmule/internal/core/calendar"
	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/unit"
)

// Supply is how the part of a line comes, and how it is fitted.
type Supply struct {
	Seller    string          `json:"seller,omitempty"` // missing: as the part's sheet says
	From      calendar.Supply `json:"from,omitempty"`   // missing: as the seller is, or the part's sheet says
	Lead      Lead            `json:"lead,omitzero"`
	Express   bool            `json:"express,omitempty"`
	Ordered   string          `json:"ordered,omitempty" is:"date"`
	Promised  string          `json:"promised,omitempty" is:"date"`
	Came      string          `json:"came,omitempty" is:"date"`
	Wrong     string          `json:"wrong,omitempty" is:"date"` // on which the wrong one came
	NotBefore string          `json:"not_before,omitempty" is:"date"`

	Most money.Amount `json:"up_to,omitzero"`               // of one that is bought used
	Last string       `json:"last_day,omitempty" is:"date"` // to look for a used one
	Then string       `json:"then,omitempty"`               // what is done if there is none by then

	By    FitBy       `json:"by,omitempty"`
	Shop  string      `json:"workshop,omitempty"`
	UseUp bool        `json:"use_up,omitempty"` // what is on is used up first
	Left  unit.Length `json:"left,omitzero"`    // that what is on still runs; missing: by its tread

	Torque string `json:"torque,omitempty"` // as the manual has it, with its bolts
	Look   string `json:"look,omitempty"`   // what to look at, and write down, before it comes apart
}

// FitBy is who fits a part.
type FitBy string

// Who fits it.
const (
	ByTools  FitBy = ""    // the rider where their tools reach, else a workshop
	ByRider  FitBy = "own" // whatever the tools
	ByOthers FitBy = "workshop"
)

// FitBys lists them.
func FitBys() []entry.Option {
	return []entry.Option{entry.Opt(ByTools, "By your tools"), entry.Opt(ByRider, "You"), entry.Opt(ByOthers, "A workshop")}
}

func (s *Supply) validate(v *entry.Problems, path string) {
	if s == nil {
		return
	}
	v.Short(path+".seller", s.Seller)
	v.Pick(path+".from", string(s.From), parts.Supplies())
	s.Lead.validate(v, path+".lead")
	for _, d := range []struct{ key, on string }{
		{"ordered", s.Ordered}, {"promised", s.Promised}, {"came", s.Came}, {"wrong", s.Wrong}, {"not_before", s.NotBefore}, {"last_day", s.Last},
	} {
		v.Date(path+"."+d.key, d.on)
	}
	v.That(s.Promised == "" || s.Ordered == "" || s.Promised >= s.Ordered, path+".promised", "%s is before it was ordered, %s", entry.Cut(s.Promised), entry.Cut(s.Ordered))
	v.That(s.Came == "" || s.Ordered == "" || s.Came >= s.Ordered, path+".came", "%s is before it was ordered, %s", entry.Cut(s.Came), entry.Cut(s.Ordered))
	v.That(!s.Most.Known() || s.Most.Minor() >= 0, path+".up_to", "is below zero")
	v.Short(path+".then", s.Then)
	v.Pick(path+".by", string(s.By), FitBys())
	v.Short(path+".workshop", s.Shop)
	v.That(!s.Left.Known() || s.Left.Base() >= 0 && s.Left.In("km") <= 100_000, path+".left", "%s is outside 0–100000 km", s.Left)
	v.Note(path+".torque", s.Torque)
	v.Note(path+".look", s.Look)
}

// Supplied is how a line's part comes; nothing said is a supply too.
func (l *Line) Supplied() Supply {
	if l.Supply == nil {
		return Supply{}
	}
	return *l.Supply
}

// SellerOf is from whom a line's part is ordered, "" where nobody has said.
func (l *Line) SellerOf() string {
	if s := l.Supplied(); s.Seller != "" || l.Part == nil {
		return s.Seller
	}
	return l.Part.Sold.By
}

// Comes is where the part of a line comes from and in how many days; usual is set where nobody has
// said how many.
func (p *Plan) Comes(l *Line) (from calendar.Supply, days calendar.Spread, usual bool) {
	s := l.Supplied()
	seller := p.Ready.SellerOf(l.SellerOf())
	var sold parts.Sold
	if l.Part != nil && (s.Seller == "" || s.Seller == l.Part.Sold.By) {
		sold = l.Part.Sold
	}
	from = s.From
	switch {
	case from != "":
	case l.Source.free():
		from = calendar.InReach
	case l.Source == BoughtUsed:
		from = calendar.Used
	case l.Source == HomeMade:
		from = calendar.ByHand
	case seller != nil && seller.From != "":
		from = seller.From
	case sold.From != "":
		from = sold.From
	default:
		from = calendar.Stock
	}
	row, _ := calendar.SupplyOf(from)
	switch {
	case s.Express && seller != nil && seller.Express.Known():
		return from, calendar.Stock.Around(seller.Express.In("d")), false
	case s.Lead.Known():
		return from, s.Lead.Spread(from), false
	case from == calendar.InReach || from == calendar.Used || from == calendar.ByHand:
		return from, row.Days, from != calendar.InReach
	case seller != nil && seller.Lead.Known():
		return from, seller.Lead.Spread(from), false
	case sold.Days.Known() && s.From == "":
		return from, from.Around(sold.Days.In("d")), false
	}
	return from, row.Days, true
}

// Supplying is the plan with what is said of how a line comes changed. A line with a day on which it
// came, or was ordered, is one that is here, or ordered.
func (p *Plan) Supplying(at int, change func(*Supply)) *Plan {
	return p.Altered(at, func(l *Line) {
		s := l.Supplied()
		change(&s)
		l.Supply = &s
		if s == (Supply{}) {
			l.Supply = nil
		}
		waits := l.Decision == "" || l.Decision == Chosen
		switch {
		case s.Came != "" && (waits || l.Decision == Ordered):
			l.Decision = Owned
		case s.Ordered != "" && waits:
			l.Decision = Ordered
		}
	})
}
