package movement

// modifiersText is the table of what changes a movement.
const modifiersText = `# What changes a movement: words | what, by how much: x times, + more, = so.
# effort, seconds (a rep), pace (metres a second), planes, joints, phase, aim, contacts,
# alternates, travels.
single-leg, single leg, one-leg, one leg, one-legged, one foot, 1-leg | effortx1.25 alternates=no
double-leg, double leg, two-leg, two-footed, two feet, both feet, bilateral | effortx0.9 alternates=no
single-arm, single arm, one-arm, one arm | effortx1.1 planes+turn
alternating, alternate, alternately, left and right, switching | alternates=yes
lateral, laterally, sideways, side-to-side, side to side | planes=side pacex0.85
diagonal, diagonally, 45-degree, angled | planes+side pacex0.95
rotational, rotation, with rotation, with a twist, and twist, with twist, rotating, and rotate | planes+turn joints+back secondsx1.35 pacex0.75
backwards, backward, reverse, in reverse, retro | pacex0.75 secondsx1.1
slow, slowly, controlled, under control, smooth, gentle, gently | effortx0.85 secondsx1.5 pacex0.7
fast, quick, quickly, rapid, speedy, high cadence | effortx1.15 secondsx0.75 pacex1.2
explosive, explosively, powerful, maximal, max, all-out, full speed, 100% | effortx1.3 phase=potentiate
easy, light, relaxed, half pace, 50%, low, small | effortx0.7 pacex0.85
sub-max, submaximal, 75%, 80%, three-quarter pace, at three quarters | effortx0.85 pacex0.9
pause, paused, with a pause, and hold, with hold, hold at the bottom, 2-second hold, two-second hold | seconds+2.0 pacex0.6 effortx1.05
without jump, no jump, without the jump, no jumping | contacts=0 aim=pulse effortx0.85
reset, reset each time, and reset, with a reset, set up again | seconds+1.5
and stick, to stick, stick it, stick the landing, freeze the landing, hold the landing | aim=landing seconds+2.0 effortx0.9
continuous, repeated, repeat, non-stop, back-to-back, rebound, rebounding | secondsx0.7 effortx1.1
walking, travelling, traveling, moving, on the move, down and back | travels=yes secondsx1.1
on the spot, in place, stationary, standing, standing still | travels=no pace=- effortx0.9
banded, band, with band, mini-band, resistance band, loop band | effortx1.15 secondsx1.1
weighted, loaded, with plate, dumbbell, kettlebell, barbell, with medicine ball | effortx1.2 secondsx1.1
overhead, arms overhead, with overhead reach, hands up, arms high | joints+shoulder effortx1.05 secondsx1.15
partner, with a partner, in pairs, partnered, assisted | secondsx1.2
eyes closed, eyes shut, blindfold, no vision | aim=stability effortx1.1 secondsx1.25 pacex0.5
resisted, against resistance, with resistance, towing | effortx1.15 pacex0.6 secondsx1.2
seated, sitting, lying, supine, prone, kneeling, half-kneeling, on all fours, quadruped, side-lying | travels=no pace=- contacts=0 effortx0.85
with ball, with a ball, ball in hand, with the ball, with stick | effortx1.05 pacex0.85 secondsx1.1
big, high, deep, full range, wide, long | effortx1.1 secondsx1.15
uphill, incline, on sand, on stairs, stairs | effortx1.2 pacex0.8
`
