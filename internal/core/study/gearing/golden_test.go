package gearing_test

import (
	"testing"

	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/core/study/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, gearing.Study) }
