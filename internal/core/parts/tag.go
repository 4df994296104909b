package parts

import (
	"slices"
	"strings"

	"valiantmule/internal/core/entry"
)

// Tag is what one thing provides and another needs. Most are of a table. What belongs
// to a kind of bikes says so after a colon, "frame: Holt 650", in the words of whoever
// made the part or has the bike.

// TagInfo is a tag of the table: how it is called as something that is needed, and
// the slots whose parts may provide it.
type TagInfo struct {
	Tag, Words string
	By         []Slot // nobody: it is of the bike
}

var tags = [...]TagInfo{
	{"bar-22", "a bar of 22.2 mm", []Slot{Handlebar}},
	{"bar-28", "a bar of 28.6 mm", []Slot{Handlebar}},
	{"clamp-22", "clamps for a 22.2 mm bar", []Slot{Risers}},
	{"clamp-28", "clamps for a 28.6 mm bar", []Slot{Risers}},
	{"damped-bar", "a damped or flexible bar", []Slot{Handlebar, Risers}},
	{"bar-ends", "open ends of the bar", []Slot{HandGuards}},
	{"warm-hands", "warm hands", []Slot{Grips, HandGuards}},
	{"damped-grips", "soft grips", []Slot{Grips}},
	{"bolt-on-grips", "grips that bolt on", []Slot{Grips}},
	{"folding-levers", "levers that fold", []Slot{Levers}},
	{"short-levers", "short levers", []Slot{Levers}},
	{"adjustable-levers", "levers that come to the hand", []Slot{Levers}},
	{"own-seat", "a seat for its rider", []Slot{Seat}},
	{"wide-pegs", "toothed pegs", []Slot{Pegs}},
	{"damped-pegs", "damped pegs", []Slot{Pegs}},
	{"knee-grip", "grip for knees and calves", []Slot{KneeGrip, TankGuard, FrameGuards}},
	{"tall-screen", "a tall screen", []Slot{Windscreen}},
	{"tower", "a tower", []Slot{Windscreen}},
	{"nav-place", "a mount to sit on", []Slot{NavMount, Windscreen}},
	{"damped-mount", "a damped mount", []Slot{NavMount}},
	{"navigation", "navigation", []Slot{Navigator}},
	{"paper", "paper", []Slot{Navigator}},
	{"shaken-camera", "a camera that shaking breaks", []Slot{Navigator}},
	{"draws-power", "something that is fed all day", []Slot{Grips, Navigator}},
	{"socket", "a charging socket", []Slot{Socket}},
	{"unswitched", "a feed that is always on", []Slot{Socket}},
	{"raised-mudguard", "a raised mudguard", []Slot{FrontMudguard}},
	{"wraps-cases", "the sides of the cases", []Slot{SkidPlate}},
	{"engine-bars", "engine bars to hang on", []Slot{EngineBars}},
	{"seen-by-day", "lamps to be seen by", []Slot{DayLamps, AuxLamps, WideLamps, Headlamp}},
	{"lithium", "a lithium battery", []Slot{Battery}},
	{"fork-valves", "air valves in the fork caps", []Slot{ForkCaps, Fork}},
	{"thicker-oil", "thicker fork oil", []Slot{ForkOil}},
	{"led-indicators", "indicators of light-emitting diodes", []Slot{Indicators}},
	{"flasher", "a flasher that does not mind the load", []Slot{Indicators}},
	{"with-main-beam", "lamps that follow the main beam", []Slot{LampControl}},
	{"dark-beside-indicator", "lamps that go dark beside a working indicator", []Slot{LampControl}},
	{"brake-flash", "a brake lamp that flashes", []Slot{BrakeLamp}},
	{"lithium-charge", "a regulator that suits lithium", []Slot{Regulator}},
	{"short-plate", "a short plate holder", []Slot{PlateHolder}},
	{"rear-rack", "a rear rack to stand on", []Slot{RearRack}},
	{"side-rack", "a side rack to hang on", []Slot{SideRack}},
	{"heat-shield", "a shield against the exhaust", []Slot{SideRack, SideBags}},
	{"hard-slider", "a slider of hard material", []Slot{ChainSlider}},
	{"speedometer-corrected", "a corrected speedometer", []Slot{Speedometer}},
	{"balanced-front", "a balanced front wheel", []Slot{FrontLock, FrontWheel, FrontTyre}},
	{"balanced-rear", "a balanced rear wheel", []Slot{RearLock, RearWheel, RearTyre}},
	{"mends-tubes", "what mends tubes", []Slot{TyreKit}},
	{"mends-tubeless", "what mends tubeless tyres", []Slot{TyreKit}},
	{"quiet", "a quiet silencer", []Slot{Silencer}},
	{"waits-on-the-way", "a place on the way where it waits", []Slot{SpareFront, SpareRear}},
	{"radiator", "a radiator", nil},
	{"oil-cooler", "an oil cooler", nil},
	{"chain-drive", "a chain", nil},
	{"speedometer-pulse", "a speedometer that counts pulses", nil},
}

// families are what belongs to a kind of bikes, by what stands before the colon.
var families = map[string]string{
	"frame": "the mounts of the frame of ", "output shaft": "the output shaft of ", "sprocket hub": "the sprocket hub of ",
	"wheel spindles": "the wheel spindles of ", "chain": "a chain ",
}

// Families lists what the tags of a bike's own kind start with.
func Families() []string { return []string{"frame", "output shaft", "sprocket hub", "wheel spindles"} }

// TagWords is how a tag is called as something that is needed; one of nobody's table
// is in words already.
func TagWords(tag string) string {
	for _, info := range tags {
		if info.Tag == tag {
			return info.Words
		}
	}
	if kind, name, ok := strings.Cut(tag, ": "); ok && families[kind] != "" {
		return families[kind] + name
	}
	return tag
}

// TagsBy lists what parts of a slot may provide, or with "" what a bike may.
func TagsBy(s Slot) []entry.Option {
	var list []entry.Option
	for _, info := range tags {
		if s == "" && info.By == nil || slices.Contains(info.By, s) {
			list = append(list, entry.Option{Value: info.Tag, Name: info.Words})
		}
	}
	return list
}

// KnownTags lists every tag of the table.
func KnownTags() []entry.Option {
	list := make([]entry.Option, len(tags))
	for i, info := range tags {
		list[i] = entry.Option{Value: info.Tag, Name: info.Words}
	}
	return list
}
