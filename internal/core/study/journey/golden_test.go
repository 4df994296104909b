package journey_test

import (
	"testing"

	"valiantmule/internal/core/study/journey"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, journey.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, journey.Study) }
