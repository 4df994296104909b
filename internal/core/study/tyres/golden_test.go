package tyres_test

import (
	"testing"

	"valiantmule/internal/core/study/tyres"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, tyres.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, tyres.Study) }
