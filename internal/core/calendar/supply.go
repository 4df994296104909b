package calendar

// Supply is where a part comes from, by which its days are known roughly.
type Supply string

// The supplies.
const (
	Stock    Supply = "stock"    // a large shop that has it
	Near     Supply = "near"     // a specialist in the region
	Abroad   Supply = "abroad"   // its maker, far away
	Special  Supply = "special"  // made or wound to order
	Used     Supply = "used"     // watched for, then at once
	NewModel Supply = "new"      // a part for a new model: it appears in the year
	ByHand   Supply = "by-hand"  // materials for what one makes
	InReach  Supply = "in-reach" // lies at home, at a friend's, on another bike
)

// SupplyRow is a supply with the days that it usually takes.
type SupplyRow struct {
	Supply Supply
	Name   string
	Days   Spread // [memory]
}

var supplies = []SupplyRow{
	{Stock, "Large shop, in stock", Spread{1, 2, 3}},
	{Near, "Specialist in the region", Spread{5, 7, 10.5}},
	{Abroad, "Maker abroad", Spread{21, 35, 56}},
	{Special, "Made to order", Spread{28, 42, 70}},
	{Used, "Used, once one is found", Spread{7, 12, 21}},
	{NewModel, "Not made yet, in the year", Spread{60, 120, 240}},
	{ByHand, "Materials", Spread{1, 2, 3}},
	{InReach, "At home, at a friend's", Spread{0, 0, 0}},
}

// Supplies lists them from quick to slow, as far as they can be told.
func Supplies() []SupplyRow { return supplies }

// SupplyOf finds a supply.
func SupplyOf(s Supply) (SupplyRow, bool) {
	for _, row := range supplies {
		if row.Supply == s {
			return row, true
		}
	}
	return SupplyRow{}, false
}

// Around is the spread of so many likely days: 0.7 to 1.5 times from where it is in stock, to twice from
// abroad and of what is made to order [memory].
func (s Supply) Around(likely float64) Spread {
	high := 1.5
	switch s {
	case Abroad, Special, NewModel:
		high = 2
	}
	return Spread{0.7 * likely, likely, high * likely}
}

// AroundHours is the spread of so many likely hours of work: what goes wrong takes longer than
// what goes well saves [memory].
func AroundHours(likely float64) Spread { return Spread{0.8 * likely, likely, 1.5 * likely} }
