package draw

// Stairs is the spend as a staircase: each line is a step as high as its cost,
// up to the budget's line and past it.
type Stairs struct {
	Shown         bool
	Width, Height N
	Left, Right   N
	Lower         N
	Steps         []Stair
	Budget        Level
	Ticks         []Tick
}

// Stair is one line of the plan.
type Stair struct {
	X, Y, Width, Height N
	Kind                string // needed, wanted, open, later
	Over                bool   // it passes the budget
	Title               string
}

// StairStep is what a step is made from, in minor units.
type StairStep struct {
	Cost  float64
	Kind  string
	Title string
}

const (
	stairsWidth  = 760.0
	stairsHeight = 250.0
	stairsLeft   = 70.0
	stairsRight  = 744.0
	stairsTop    = 18.0
	stairsLower  = 222.0
)

// Staircase draws steps in their order; budget is NaN for none. Money turns
// minor units into words for the scale.
func Staircase(list []StairStep, budget float64, money func(minor float64) string) Stairs {
	d := Stairs{Width: stairsWidth, Height: stairsHeight, Left: stairsLeft, Right: stairsRight, Lower: stairsLower}
	total := 0.0
	for _, s := range list {
		total += s.Cost
	}
	if len(list) == 0 || total <= 0 {
		return d
	}
	d.Shown = true
	top := total
	if budget > 0 {
		top = max(top, budget)
	}
	y := scale{0, top * 1.05, stairsLower, stairsTop}
	step := (stairsRight - stairsLeft) / float64(len(list))
	sum := 0.0
	for i, s := range list {
		before := sum
		sum += s.Cost
		d.Steps = append(d.Steps, Stair{
			X: N(stairsLeft + float64(i)*step), Width: N(step), Y: y.of(sum), Height: y.of(before) - y.of(sum),
			Kind: s.Kind, Over: budget > 0 && sum > budget, Title: s.Title,
		})
	}
	if budget > 0 {
		d.Budget = Level{true, y.of(budget), money(budget)}
	}
	for _, v := range steps(0, top/100, 4) {
		d.Ticks = append(d.Ticks, Tick{y.of(v * 100), money(v * 100)})
	}
	return d
}
