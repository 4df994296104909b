package armour_test

import (
	"testing"

	"valiantmule/internal/core/study/armour"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, armour.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, armour.Study) }
