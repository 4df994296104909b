package loading_test

import (
	"testing"

	"valiantmule/internal/core/study/loading"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, loading.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, loading.Study) }
