package baseline

// checks are common practice; how each is done follows any workshop manual.
var checks = []Check{
	{ID: "recalls", Area: Papers, Name: "Recalls", How: "Ask a dealer or the maker's page with the frame number. A recall is free, and it is done before the trip."},
	{ID: "papers", Area: Papers, Name: "Papers and inspection", How: "Frame number against the papers, the next inspection after the trip, every change that needs an approval has one."},
	{ID: "service-book", Area: Papers, Name: "Service record", How: "What was done when, by whom. What is not written down was not done: valve clearance, brake fluid, fork oil."},

	{ID: "leaks", Area: Cold, Name: "Leaks", How: "A sheet of cardboard under it overnight. Look under the engine, along the fork legs, at the shock, at every hose end."},
	{ID: "oil", Area: Cold, Name: "Oil and filter", How: "Level as the manual says. Black and thin, smelling of petrol, or grey: change it with its filter and look at what is in it."},
	{ID: "coolant", Area: Cold, Name: "Coolant", Only: LiquidCooled, How: "Level cold. Rusty or oily is a repair, not a top-up. Hoses soft or hard, clamps, fins packed with mud."},
	{ID: "bolts", Area: Cold, Name: "What the last owner touched", How: "Torque of every bolt that has shiny edges; thread-lock on what vibrates."},
	{ID: "frame", Area: Cold, Name: "Frame and subframe", How: "Cracks in the paint beside welds, at rack and peg mounts, at the head. Sight along it from behind."},

	{ID: "front-tyre", Area: Front, Name: "Front tyre", Wear: Shrinks, Measure: "tread depth", How: "Depth in the middle at three places. Cracks, cuts, squared off, and the week and year of its date code."},
	{ID: "front-spokes", Area: Front, Name: "Front spokes and rim", Only: Spokes, How: "Ring each with a spanner: a dull one is loose. Turn the wheel past a finger: run-out, dents at the edge."},
	{ID: "front-bearings", Area: Front, Name: "Front wheel bearings", How: "Wheel off the ground, pull and push it top and bottom: no play. Turn it: no grinding."},
	{ID: "front-pads", Area: Front, Name: "Front pads", Wear: Shrinks, Measure: "pad thickness", How: "Both sides of each caliper, the thinnest."},
	{ID: "front-disc", Area: Front, Name: "Front disc", Wear: Shrinks, Measure: "disc thickness", How: "At the thinnest, with a calliper that reaches past the edge. Blue, grooved or wavy: note it."},
	{ID: "fork-seals", Area: Front, Name: "Fork seals and sliders", How: "A ring of oil on the tube, pits where the seal runs. Pump it ten times and look again."},
	{ID: "head-bearings", Area: Front, Name: "Steering head", How: "Front off the ground: push and pull the fork legs, no knock. Turn slowly: no notch straight ahead."},

	{ID: "cables", Area: Controls, Name: "Cables and hoses", How: "Frayed ends, kinks, tight at full lock on both sides. Oil what can be oiled."},
	{ID: "front-brake", Area: Controls, Name: "Front brake and its fluid", How: "The lever firm, not spongy, not to the bar. Fluid clear; brown is old. Its year."},
	{ID: "throttle", Area: Controls, Name: "Throttle", How: "Snaps shut by itself at every steering angle; engine running, it does not rev up at full lock."},
	{ID: "clutch", Area: Controls, Name: "Clutch", How: "Free play at the lever. Bites early and slips uphill, or drags: look at cable or fluid first, then inside."},
	{ID: "brake-switches", Area: Controls, Name: "Brake light switches", How: "Each brake by itself lights the lamp, before it bites."},
	{ID: "lamps", Area: Controls, Name: "Every lamp", How: "Dipped, main, tail, brake, plate, indicators, and the wires to each where they bend."},

	{ID: "air-filter", Area: Left, Name: "Air filter and airbox", How: "Clean, oiled if foam, sealed all round. Holes that somebody drilled in the box let dust in: a finger inside behind the filter stays clean."},
	{ID: "carburettor", Area: Left, Name: "Carburettor", Only: Carburettor, How: "Starts cold on its choke, idles, picks up. Overflow dry, tap shuts, rubber to the engine without cracks."},
	{ID: "injection", Area: Left, Name: "Injection", Only: Injection, How: "No lamp on the dash once it runs. Pump heard at switch-on, unions dry, throttle bodies not black."},
	{ID: "valves", Area: Left, Name: "Valve clearance", How: "When it was last set, and how many kilometres ago. Cold, by the manual's way."},
	{ID: "battery", Area: Left, Name: "Battery", How: "At rest after a night about 12.6 V or more, at a fast idle 13.5–14.5 V. Terminals tight and greased."},
	{ID: "chain-wear", Area: Left, Name: "Chain", Only: Chain, Wear: Grows, Measure: "length over the manual's number of links", How: "Pulled tight, over as many links as the manual says, at the tightest place. Stiff links, dry rings, rust."},
	{ID: "chain-slack", Area: Left, Name: "Chain slack", Only: Chain, How: "At the tightest place of its turn and of the swingarm's travel, as the manual says."},
	{ID: "sprockets", Area: Left, Name: "Sprockets, and what gearing is on it now", Only: Chain, How: "Teeth hooked or pointed; the chain lifts off the rear one. Count both: a previous owner may have changed them."},
	{ID: "chain-slider", Area: Left, Name: "Chain slider", Only: Chain, Wear: Shrinks, Measure: "thickness at the deepest groove", How: "At the front of the swingarm, from above and below. Through it, the chain saws into the swingarm."},
	{ID: "shaft-drive", Area: Left, Name: "Shaft and final drive", Only: Shaft, How: "Play at the rear wheel, turned by hand in gear. Oil level and colour, metal on its magnet, boots whole."},

	{ID: "rear-tyre", Area: Rear, Name: "Rear tyre", Wear: Shrinks, Measure: "tread depth", How: "Depth in the middle at three places. Cracks, cuts, squared off, and its date code."},
	{ID: "tubes", Area: Rear, Name: "Valves and tubes", Only: Tubes, How: "A valve that leans says that the tyre has moved on its rim. Nut loose, cap on."},
	{ID: "tubeless-rims", Area: Rear, Name: "Rim beads and valves", Only: Tubeless, How: "Soap water round bead and valve; dents at the edge; the rubber of the valve without cracks."},
	{ID: "rear-spokes", Area: Rear, Name: "Rear spokes and rim", Only: Spokes, How: "As in front. Loose ones by the drive side first."},
	{ID: "rear-bearings", Area: Rear, Name: "Rear wheel bearings and hub rubbers", How: "Play top and bottom; turn the wheel to and fro against the drive: more than a little is rubbers."},
	{ID: "swingarm", Area: Rear, Name: "Swingarm and linkage", How: "Rear off the ground: push sideways, then lift the wheel. A click is a bearing. When were they greased?"},
	{ID: "shock", Area: Rear, Name: "Shock", How: "Push down and let go: up once, not twice. Oil on its rod. Preload collars that turn."},

	{ID: "rear-pads", Area: Right, Name: "Rear pads", Wear: Shrinks, Measure: "pad thickness", How: "The thinnest."},
	{ID: "rear-disc", Area: Right, Name: "Rear disc", Wear: Shrinks, Measure: "disc thickness", How: "At the thinnest."},
	{ID: "rear-brake", Area: Right, Name: "Rear brake and its fluid", How: "Firm, free when let go. The reservoir behind a boot is hit first in a fall."},
	{ID: "exhaust", Area: Right, Name: "Exhaust", How: "Cracks at hangers, blows at joints, its approval stamp. The heat shield tight."},
	{ID: "stand", Area: Right, Name: "Side stand and its switch", How: "Its spring, its bolt, and that the engine dies in gear with it down."},

	{ID: "cold-start", Area: Running, Name: "Cold start", How: "Cold to the hand before anybody warms it up. Smoke: blue is oil, white that stays is coolant, black is rich."},
	{ID: "hot", Area: Running, Name: "Hot and idling", How: "Ten minutes at idle: the fan comes on, the idle stays, no new noise, no drip."},
	{ID: "ride", Area: Running, Name: "Ride", How: "Hands light on the bars: it runs straight. Each gear pulls and stays in. Brakes stop straight; no shake at any speed."},

	{ID: "levers", Area: Free, Name: "Levers", How: "Down and inwards so that wrists are straight standing; free play set."},
	{ID: "bar-roll", Area: Free, Name: "Bar roll", How: "In line with the fork or a little ahead, clamps by torque. Try it standing."},
	{ID: "shift-lever", Area: Free, Name: "Shift and brake levers", How: "A boot's sole under one and over the other, standing. A spline up or down costs nothing."},
	{ID: "clickers", Area: Free, Name: "Clickers to standard", How: "Count each from fully in, write down what it was, set what the manual says. Only then change one at a time."},
	{ID: "pressures", Area: Free, Name: "Cold pressures", How: "By the placard, in the morning, with a gauge that is trusted."},
	{ID: "preload", Area: Free, Name: "Preload for your mass", How: "Measure sag with you on it, dressed to ride, before a spring is bought."},
}
