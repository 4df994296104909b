package bike_test

import (
	"testing"

	"valiantmule/internal/core/study/bike"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, bike.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, bike.Study) }
