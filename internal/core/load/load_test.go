package load_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"valiantmule/internal/core/load"
)

// TestMoments is a beam worked by hand as in any statics text: 170 kg, 80 kg of
// it in front, on a wheelbase of 1500 mm; 90 kg at 600 mm and 20 kg 150 mm behind
// the rear axle. About the rear axle: 80·1500 + 90·600 − 20·150 = 171 000 kg mm,
// over 1500 mm is 114 kg in front; 280 − 114 = 166 kg behind.
func TestMoments(t *testing.T) {
	axles := load.Add(load.Axles{FrontKg: 80, RearKg: 90}, 1500, []load.Item{{MassKg: 90, XMM: 600}, {MassKg: 20, XMM: -150}})
	assert.InDelta(t, 114, axles.FrontKg, 1e-9)
	assert.InDelta(t, 166, axles.RearKg, 1e-9)
	assert.InDelta(t, 280, axles.TotalKg(), 1e-9)
}

// TestCentre is the same beam: 114 of 280 kg in front put the centre 1500 × 114 /
// 280 = 610.7 mm ahead of the rear axle. Up: 170 kg at 560 mm, 90 kg at 1080 and
// 20 kg at 950: (95 200 + 97 200 + 19 000) / 280 = 755 mm.
func TestCentre(t *testing.T) {
	assert.InDelta(t, 610.71, load.CentreXMM(load.Axles{FrontKg: 114, RearKg: 166}, 1500), 0.01)
	items := []load.Item{{MassKg: 90, ZMM: 1080}, {MassKg: 20, ZMM: 950}}
	assert.InDelta(t, 755, load.Height(170, 560, items), 1e-9)
	assert.InDelta(t, 560, load.Height(170, 560, nil), 1e-9)
}

func TestLaws(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for range 500 {
		base := 1300 + 300*random.Float64()
		kerb := load.Axles{FrontKg: 60 + 60*random.Float64(), RearKg: 60 + 60*random.Float64()}
		it := load.Item{MassKg: 60 * random.Float64(), XMM: base * (2*random.Float64() - 0.5)}
		with := load.Add(kerb, base, []load.Item{it})
		assert.InDelta(t, kerb.TotalKg()+it.MassKg, with.TotalKg(), 1e-9, "no mass is lost")

		further := it
		further.XMM += 50
		assert.LessOrEqual(t, load.Add(kerb, base, []load.Item{further}).RearKg, with.RearKg, "moved forward it never loads the rear")

		off := load.Add(with, base, []load.Item{{MassKg: -it.MassKg, XMM: it.XMM}})
		assert.InDelta(t, kerb.FrontKg, off.FrontKg, 1e-9, "taken off again it leaves no trace")

		mirrored := load.Add(load.Axles{FrontKg: kerb.RearKg, RearKg: kerb.FrontKg}, base, []load.Item{{MassKg: it.MassKg, XMM: base - it.XMM}})
		assert.InDelta(t, with.FrontKg, mirrored.RearKg, 1e-9, "turned round, the axles change places")
	}
}

func TestEveryPlaceHasASpot(t *testing.T) {
	before := 2.0
	for _, s := range load.Spots() {
		if s.Place == load.RearWheel {
			assert.Zero(t, s.Share)
			continue
		}
		assert.LessOrEqual(t, s.Share, before, "%s: the places run from front to rear", s.Name)
		before = s.Share
	}
	_, ok := load.SpotOf("roof")
	assert.False(t, ok)
	assert.InDelta(t, 0.38*1500, load.Rider.XMM(1500), 1e-9)
	assert.InDelta(t, 1.25*860, load.Rider.ZMM(860), 1e-9)
	assert.True(t, math.IsNaN(load.Place("roof").ZMM(860)))
	assert.True(t, math.IsNaN(load.Place("roof").XMM(1500)), "nothing sits where there is no place")
}
