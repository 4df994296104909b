package inspection_test

import (
	"testing"

	"valiantmule/internal/core/study/inspection"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, inspection.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, inspection.Study) }
