package movement

// movesText is the table of movements.
const movesText = `# What a movement is by its name. A line each, its columns parted by |:
# the words for it | aim | phase | joints | planes | effort, 0 to 1 | ground contacts a rep |
# alternates, travels, bare (it works what is named beside it), going (a way of going) | seconds a rep: quick, usual, slow | metres a second: slow, usual, quick
# "-" is none. The most telling words lead: the longest, of as long the last.
walk, walks, walking, brisk walk | pulse | raise | ankle knee hip | front | 0.15 | 0 | travels going | - | 1.1 1.4 1.9
jog, jogs, jogging, easy jog, light jog | pulse | raise | ankle knee hip | front | 0.35 | 0 | travels going | - | 2 2.6 3.3
slow jog, slow jogs, slow jogging, easy slow jog | pulse | raise | ankle knee hip | front | 0.3 | 0 | travels going | - | 1.8 2.3 2.8
run, runs, running, easy run, steady run | pulse | raise | ankle knee hip | front | 0.5 | 0 | travels going | - | 2.5 3.5 4.8
jog backwards, backward jog, backwards run, backward run, reverse run | pulse | raise | ankle knee hip | front | 0.4 | 0 | travels | - | 1.5 2.1 3
stride, strides, striding, stride-out, stride-outs | sprint | potentiate | ankle knee hip | front | 0.7 | 0 | travels | - | 4.5 5.8 7
build-up, build-ups, build up, buildup, buildups, progressive run, progressive runs | sprint | potentiate | ankle knee hip | front | 0.75 | 0 | travels | - | 4 5.3 6.8
sprint, sprints, sprinting, flat-out run | sprint | potentiate | ankle knee hip | front | 0.95 | 0 | travels | - | 4.4 5.6 7.5
flying sprint, flying run, flying 10, flying 20, fly-in | sprint | potentiate | ankle knee hip | front | 1 | 0 | travels | - | 6.5 7.8 9
acceleration, accelerations, accelerate, burst, bursts, explode out | acceleration | potentiate | ankle knee hip | front | 0.9 | 0 | travels | - | 3.8 4.8 5.8
falling start, falling starts, fall start, lean and go, lean fall run | acceleration | potentiate | ankle knee hip | front | 0.85 | 0 | travels | 2.5 3.5 5 | 3.5 4.5 5.4
push-up start, prone start, lying start, get-up sprint, get up and go | acceleration | potentiate | ankle knee hip shoulder | front | 0.9 | 0 | travels | 3 4 6 | 2.6 3.5 4.4
three-point start, two-point start, half-kneeling start, sprint start, block start | acceleration | potentiate | ankle knee hip | front | 0.9 | 0 | travels | 2.5 4 6 | 3.6 4.6 5.5
wall drive, wall drives, wall drill, wall march, wall switch, wall switches | acceleration | potentiate | ankle knee hip | front | 0.5 | 0 | alternates | 0.5 1 2 | -
hill run, hill sprint, uphill run | acceleration | potentiate | ankle knee hip | front | 0.85 | 0 | travels | - | 2.5 3.8 5
shuttle, shuttles, shuttle run, there and back, out and back, suicide, suicides, doggies, line drill, line drills, line run, beep test, ladders of lines | change | potentiate | ankle knee hip | front side | 0.7 | 0 | travels | - | 2.2 3.2 4.3
tempo run, tempo runs, steady strides | pulse | raise | ankle knee hip | front | 0.6 | 0 | travels | - | 3.5 4.3 5.2
skip, skips, skipping | rhythm | raise | ankle knee hip | front | 0.45 | 1 | alternates travels going | 0.4 0.55 0.75 | 1.3 1.9 2.7
a-skip, a-skips, a skip, a skips, knee-lift skip, high-knee skip | rhythm | raise | ankle knee hip | front | 0.55 | 1 | alternates travels | 0.4 0.5 0.7 | 1 1.5 2.2
b-skip, b-skips, b skip, b skips, pawing skip | coordination | activate | ankle knee hip | front | 0.55 | 1 | alternates travels | 0.45 0.6 0.8 | 1 1.5 2.1
c-skip, c skip, open-hip skip, open the gate skip | coordination | raise | ankle knee hip | front turn | 0.5 | 1 | alternates travels | 0.5 0.7 0.9 | 0.9 1.4 2
power skip, power skips, skip for height, skips for height, high skip, skip for distance, skips for distance | jump | potentiate | ankle knee hip | front | 0.75 | 1 | alternates travels | 0.6 0.8 1 | 1.6 2.3 3.2
lateral skip, side skip, side skips, sideways skip | rhythm | raise | ankle knee hip | side | 0.45 | 1 | alternates travels | 0.4 0.6 0.8 | 1 1.6 2.3
backward skip, backwards skip, reverse skip | rhythm | raise | ankle knee hip | front | 0.45 | 1 | alternates travels | 0.45 0.6 0.8 | 0.9 1.4 2
arm-swing skip, skip with arm circles, skip and swing | rhythm | raise | ankle knee hip shoulder | front side | 0.45 | 1 | alternates travels | 0.45 0.6 0.8 | 1.2 1.7 2.4
gallop, gallops, galloping | rhythm | raise | ankle knee hip | front | 0.45 | 1 | travels | 0.4 0.55 0.7 | 1.8 2.5 3.4
march, marches, marching, a-march, a march, knee-lift march | rhythm | raise | ankle knee hip | front | 0.3 | 0 | alternates travels going | 0.5 0.8 1.2 | 0.5 0.8 1.2
high knees, high knee, high-knee run, knees up, high-knees | rhythm | raise | ankle knee hip | front | 0.6 | 0 | alternates travels | 0.2 0.3 0.45 | 0.9 1.4 2.1
butt kick, butt kicks, heel flick, heel flicks, heel kicks, heels to seat, bum kicks, kick-backs | rhythm | raise | ankle knee hip | front | 0.5 | 0 | alternates travels | 0.2 0.3 0.45 | 1 1.6 2.4
straight-leg run, straight-leg runs, straight-leg bound, straight-leg bounds, straight-leg skip, straight-leg skips | rhythm | potentiate | ankle hip | front | 0.65 | 1 | alternates travels | 0.3 0.4 0.55 | 1.4 2.1 3
ankling, ankle run, ankle dribble, dribble run, dribbles over the ankle | rhythm | raise | ankle knee | front | 0.45 | 0 | alternates travels | 0.25 0.35 0.5 | 0.8 1.2 1.8
quick feet, fast feet, foot fire, rapid feet, pitter-patter, stutter steps | coordination | raise | ankle knee hip | front | 0.6 | 0 | alternates | 0.12 0.18 0.3 | -
shuffle, shuffles, shuffling, side shuffle, side-shuffle, slide, slides, defensive slide, side-step, side-steps, side steps, gallop sideways | coordination | raise | ankle knee hip | side | 0.5 | 0 | travels | 0.4 0.6 0.9 | 1.6 2.3 3.4
carioca, cariocas, karaoke, grapevine, crossover run, crossover steps, crossovers | coordination | raise | ankle knee hip back | side turn | 0.5 | 0 | alternates travels | 0.4 0.6 0.9 | 1.4 2.1 3.2
backpedal, backpedals, backpedalling, back-pedal, back pedal, backpedaling | coordination | raise | ankle knee hip | front | 0.45 | 0 | travels | - | 1.6 2.3 3.3
backpedal turn and run, open and go, hip turn and run, drop step and run, turn and run | change | potentiate | ankle knee hip back | front turn | 0.7 | 0 | travels | 2.5 3.5 5 | 2.2 3 4
zigzag, zig-zag, zigzag run, weave, weaving, slalom, snake run, s-run, serpentine | change | potentiate | ankle knee hip | front side | 0.65 | 0 | travels | - | 1.8 2.7 3.6
cut, cuts, cutting, side-cut, plant and cut, sidestep cut | change | potentiate | ankle knee hip | side turn | 0.8 | 1 | travels | 1.5 2.5 4 | 2 3 4.2
brake, braking, deceleration, decelerations, decelerate, run and stop, stop on the line, sprint and stop | change | potentiate | ankle knee hip | front | 0.75 | 0 | travels | 2.5 3.5 5 | 2.2 3 3.8
curved run, curve run, bend run, figure of eight, figure eight run, arc run | change | potentiate | ankle knee hip | front turn | 0.65 | 0 | travels | - | 2.5 3.6 5
lateral run, crossover sprint, lateral start | acceleration | potentiate | ankle knee hip | side | 0.8 | 0 | travels | 2 3 4.5 | 2.8 3.8 4.8
hop, hops, hopping | jump | potentiate | ankle knee | front | 0.7 | 1 | - | 0.5 0.7 1 | -
travelling hop, hops forward, single-leg hops for distance, hop for distance | jump | potentiate | ankle knee hip | front | 0.8 | 1 | travels | 0.5 0.8 1.2 | 1.3 2 3
hop and stick, hop and hold, hop to stick, hop and freeze | landing | activate | ankle knee hip | front | 0.6 | 1 | - | 2 3 4.5 | -
lateral hop, side hop, side hops, side-to-side hop | jump | potentiate | ankle knee hip | side | 0.7 | 1 | - | 0.4 0.6 1 | -
triple hop, three hops | jump | potentiate | ankle knee hip | front | 0.9 | 3 | travels | 2.5 3.5 5 | 1.5 2.3 3
pogo, pogos, pogo jump, pogo jumps, ankle hop, ankle hops, ankle bounce, ankle bounces, stiff-leg bounces | jump | potentiate | ankle knee | front | 0.55 | 1 | - | 0.3 0.4 0.6 | -
bounce, bounces, bouncing, bounce on toes, bounce on the spot | pulse | raise | ankle knee | front | 0.35 | 1 | - | 0.35 0.5 0.7 | -
line hop, line hops, line jump, line jumps, jumps over the line, hops over a line | coordination | raise | ankle knee | front side | 0.5 | 1 | - | 0.3 0.45 0.7 | -
bound, bounds, bounding, alternate bounds, running bound | jump | potentiate | ankle knee hip | front | 0.85 | 1 | alternates travels | 0.4 0.55 0.75 | 2.6 3.6 5
lateral bound, lateral bounds, side bound, heiden, heidens | jump | potentiate | ankle knee hip | side | 0.75 | 1 | alternates | 0.9 1.4 2.2 | -
skater, skaters, skater jump, skater jumps, skater hop, speed skater | jump | potentiate | ankle knee hip | side | 0.65 | 1 | alternates | 0.8 1.2 1.8 | -
skater and stick, lateral bound and stick, skater hold, bound and stick, heiden stick, heiden and stick, skater stick, skater jump and stick | landing | activate | ankle knee hip | side | 0.65 | 1 | alternates | 2 3 4.5 | -
jump, jumps, jumping, vertical jump, vertical jumps | jump | potentiate | ankle knee hip | front | 0.75 | 1 | - | 0.8 1.5 3 | -
squat jump, squat jumps, jump squat, jump squats | jump | potentiate | ankle knee hip | front | 0.75 | 1 | - | 1 1.7 3 | -
countermovement jump, counter-movement jump, cmj, max jump, jump for height, jumps for height | jump | potentiate | ankle knee hip | front | 0.85 | 1 | - | 1.5 3 5 | -
broad jump, broad jumps, standing long jump, long jump, long jumps | jump | potentiate | ankle knee hip | front | 0.85 | 1 | travels | 1.5 3 4.5 | 0.4 0.7 1.2
tuck jump, tuck jumps, knees-to-chest jump | jump | potentiate | ankle knee hip back | front | 0.85 | 1 | - | 0.8 1.3 2.2 | -
star jump, star jumps, x-jump, spread jump | jump | raise | ankle knee hip shoulder | side | 0.65 | 1 | - | 0.9 1.4 2.2 | -
split jump, split jumps, lunge jump, lunge jumps, scissor jump, scissor jumps, jumping lunge, jumping lunges | jump | potentiate | ankle knee hip | front | 0.8 | 1 | alternates | 0.8 1.2 1.8 | -
rotational jump, rotation jump, turn jump, quarter-turn jump, half-turn jump, 180 jump, 180 jumps, 90 jump, 90 jumps | jump | potentiate | ankle knee hip back | turn | 0.7 | 1 | - | 1.2 2 3.5 | -
box jump, box jumps, jump onto box, step jump | jump | potentiate | ankle knee hip | front | 0.75 | 1 | - | 2 3.5 5.5 | -
drop jump, drop jumps, depth jump, depth jumps | jump | potentiate | ankle knee hip | front | 1 | 2 | - | 4 6 10 | -
hurdle jump, hurdle jumps, hurdle hop, hurdle hops, mini-hurdle jump, mini hurdle hops | jump | potentiate | ankle knee hip | front | 0.8 | 1 | travels | 0.6 0.9 1.5 | 0.7 1 1.6
lateral jump, lateral jumps, side jump, side-to-side jump, side-to-side jumps | jump | potentiate | ankle knee hip | side | 0.65 | 1 | - | 0.5 0.8 1.3 | -
approach jump, block jump, header jump, rebound jump, spike approach, run and jump, one-foot take-off | jump | potentiate | ankle knee hip shoulder | front | 0.85 | 1 | travels | 3 4.5 7 | 1 1.5 2.2
land, lands, landing, landings, jump and stick, jump and land, stick landing, stuck landing | landing | activate | ankle knee hip | front | 0.6 | 1 | - | 2 3 5 | -
snap-down, snap down, snap-downs, snapdown, drop squat, drop to athletic stance | landing | activate | ankle knee hip | front | 0.5 | 1 | - | 1.5 2.5 4 | -
drop landing, drop landings, depth landing, step-off landing, drop and stick | landing | activate | ankle knee hip | front | 0.65 | 1 | - | 3.5 5 8 | -
jumping jack, jumping jacks, jack, jacks, side-straddle hop | pulse | raise | ankle knee hip shoulder | side | 0.45 | 2 | - | 0.8 1 1.5 | -
seal jack, seal jacks, clap jacks | pulse | raise | ankle knee hip shoulder | side | 0.45 | 2 | - | 0.8 1.1 1.5 | -
cross jack, cross jacks, crossover jacks, scissor jacks, split jacks | coordination | raise | ankle knee hip shoulder | front side | 0.45 | 2 | alternates | 0.8 1.1 1.6 | -
burpee, burpees, sprawl, sprawls, squat thrust, squat thrusts | pulse | raise | ankle knee hip back shoulder | front | 0.8 | 1 | - | 2.2 3 4.5 | -
mountain climber, mountain climbers, running plank | pulse | raise | ankle knee hip back shoulder | front | 0.55 | 0 | alternates | 0.35 0.6 1.2 | -
rope skip, rope skips, rope skipping, rope jumps, jump rope, skipping rope, skip rope, jump-rope | pulse | raise | ankle knee | front | 0.5 | 1 | - | 0.35 0.5 0.65 | -
double-under, double unders, double-unders | coordination | raise | ankle knee | front | 0.7 | 1 | - | 0.6 0.75 1.1 | -
ladder, agility ladder, ladder drill, in-in-out-out, icky shuffle, two feet in each | coordination | raise | ankle knee hip | front side | 0.55 | 0 | alternates travels | - | 0.6 1 1.6
hopscotch, hop-scotch | coordination | raise | ankle knee hip | front side | 0.5 | 1 | travels | 0.5 0.7 1 | 0.8 1.2 1.8
step-up, step-ups, step up, bench step | strength | activate | ankle knee hip | front | 0.4 | 0 | - | 1.5 2.5 4 | -
box step-down, step-down, step-downs, heel tap down, lateral step-down | control | activate | ankle knee hip | front | 0.4 | 0 | - | 2 3 5 | -
lunge, lunges, lunging, forward lunge, forward lunges, split lunge | strength | activate | ankle knee hip | front | 0.45 | 0 | alternates | 1.5 2.3 4 | -
walking lunge, walking lunges, lunge walk | strength | activate | ankle knee hip | front | 0.45 | 0 | alternates travels | 1.3 2 3.2 | 0.3 0.45 0.7
reverse lunge, reverse lunges, backward lunge, back lunge, drop-back lunge | strength | activate | ankle knee hip | front | 0.45 | 0 | alternates | 1.6 2.5 4 | -
lateral lunge, lateral lunges, side lunge, side lunges, cossack, cossack squat, cossacks | range | activate | ankle knee hip | side | 0.45 | 0 | alternates | 1.8 2.8 4.5 | -
curtsy lunge, curtsy lunges, curtsey lunge, crossover lunge, crossover lunges | control | activate | ankle knee hip | side turn | 0.45 | 0 | alternates | 1.8 2.8 4.5 | -
lunge with twist, lunge and twist, lunge with rotation, lunge and rotate, lunge twist | range | mobilise | ankle knee hip back | front turn | 0.45 | 0 | alternates travels | 2 3 5 | 0.2 0.33 0.5
lunge and reach, lunge with reach, overhead lunge, lunge with overhead reach, lunge with side bend | range | mobilise | ankle knee hip back shoulder | front side | 0.4 | 0 | alternates travels | 2.2 3.2 5 | 0.2 0.3 0.45
elbow to instep, elbow-to-instep, elbow to ankle, world's greatest stretch, greatest stretch, spider lunge, spider lunge lunge, spider lunge, world's greatest, worlds greatest, worlds greatest stretch | range | mobilise | ankle knee hip back | front turn | 0.4 | 0 | alternates travels | 2.2 4 7 | 0.2 0.3 0.5
split squat, split squats, static lunge | strength | activate | ankle knee hip | front | 0.45 | 0 | - | 1.5 2.5 4 | -
multi-way lunge, clock lunge, clock lunges, star lunge, three-way lunge | control | activate | ankle knee hip | front side turn | 0.45 | 0 | alternates | 1.8 2.8 4.5 | -
squat, squats, squatting, air squat, bodyweight squat, body-weight squats, knee bends | strength | activate | ankle knee hip | front | 0.4 | 0 | - | 1.3 2.2 4 | -
overhead squat, overhead squats, stick squat, dowel squat | range | activate | ankle knee hip back shoulder | front | 0.4 | 0 | - | 2 3 5 | -
sumo squat, wide squat, plie squat, goblet squat | strength | activate | ankle knee hip | front side | 0.4 | 0 | - | 1.5 2.5 4 | -
squat to stand, squat-to-stand, toe-grab squat, prying squat | range | mobilise | ankle knee hip back | front | 0.3 | 0 | - | 2.5 4 6 | -
single-leg squat, single-leg squats, pistol, pistol squat, one-leg squat | control | activate | ankle knee hip | front | 0.5 | 0 | - | 2 3 5 | -
wall sit, wall-sit, chair sit, isometric squat | hold | activate | knee hip | front | 0.4 | 0 | - | 15 25 40 | -
lateral squat, side-to-side squat, lateral shift, side shift | range | mobilise | ankle knee hip | side | 0.35 | 0 | alternates | 1.5 2.5 4 | -
hinge, hinges, hip hinge, good morning, good mornings, good-morning | control | activate | hip back | front | 0.3 | 0 | - | 1.8 2.8 4.5 | -
single-leg deadlift, single-leg rdl, rdl, rdls, aeroplane, airplane, warrior three, inverted hamstring, drinking bird, t-balance | stability | activate | ankle hip back | front | 0.4 | 0 | alternates | 2.5 4 6 | -
deadlift, deadlifts, romanian deadlift | strength | activate | hip back | front | 0.45 | 0 | - | 2 3 5 | -
kettlebell swing, hip swing, kb swing | strength | activate | hip back | front | 0.6 | 0 | - | 1.2 1.6 2.2 | -
tib raise, tib raises, tibialis raise, toe lift, toe lifts, shin raise | strength | activate | ankle | front | 0.2 | 0 | - | 1 1.6 3 | -
calf raise, calf raises, heel raise, heel raises, toe raise, toe raises, heel lift, heel lifts, heel drop, heel drops, eccentric heel | strength | activate | ankle | front | 0.25 | 0 | - | 1 1.8 3.5 | -
toe walk, toe walks, heel walk, heel walks, walk on toes, walk on heels, tip-toe walk, tiptoe walk | control | raise | ankle | front | 0.2 | 0 | alternates travels | 0.5 0.7 1 | 0.5 0.8 1.1
glute bridge, glute bridges, bridge, bridges, hip bridge, hip lift, hip thrust, bridging | strength | activate | hip back | front | 0.3 | 0 | - | 1.8 2.8 5 | -
marching bridge, bridge march | strength | activate | hip back | front | 0.4 | 0 | alternates | 1.8 2.8 5 | -
single-leg bridge, single-leg glute bridge | strength | activate | hip back | front | 0.4 | 0 | - | 1.8 2.8 5 | -
clamshell, clamshells, clam, clams, side-lying hip opener | strength | activate | hip | turn | 0.2 | 0 | - | 1.5 2.2 4 | -
side-lying leg raise, side leg raise, leg abduction, hip abduction, fire hydrant, fire hydrants | strength | activate | hip | side | 0.25 | 0 | - | 1.5 2.3 4 | -
donkey kick, donkey kicks, glute kick-back, quadruped hip extension | strength | activate | hip back | front | 0.3 | 0 | - | 1.3 2 3.5 | -
nordic, nordics, nordic curl, nordic hamstring, hamstring lower, russian lean | strength | activate | knee hip | front | 0.75 | 0 | - | 3.5 5 8 | -
hamstring curl, leg curl, sliding leg curl, hamstring walk-out, hamstring walkout, razor curl, razor curls, slider curl, slider curls, ball curl, ball curls | strength | activate | knee hip back | front | 0.5 | 0 | - | 2.5 4 7 | -
copenhagen, copenhagens, copenhagen plank, adductor plank, adductor lift | strength | activate | hip back | side | 0.65 | 0 | - | 2 3 5 | -
adductor squeeze, ball squeeze, groin squeeze, knee squeeze | hold | activate | hip | side | 0.35 | 0 | - | 4 6 11 | -
band walk, band walks, monster walk, monster walks, lateral band walk, crab step, mini-band walk, side steps with band | strength | activate | knee hip | side | 0.35 | 0 | travels | 0.9 1.4 2.2 | 0.2 0.35 0.5
leg raise, leg raises, straight-leg raise, leg lower, leg lowers, leg lowering, flutter kick, flutter kicks, scissor kick, scissor kicks, toes to bar | control | activate | hip back | front | 0.3 | 0 | - | 2 3.5 6 | -
leg swing, leg swings, forward leg swing, front-to-back leg swing, pendulum, pendulums | range | mobilise | hip | front | 0.25 | 0 | - | 0.8 1.2 2 | -
lateral leg swing, lateral leg swings, side leg swing, side-to-side leg swing, cross-body leg swing | range | mobilise | hip | side | 0.25 | 0 | - | 0.8 1.2 2 | -
leg kick, straight-leg kick, straight-leg kicks, straight-leg march, toy soldier, toy soldiers, frankenstein, frankensteins, frankenstein kick, frankenstein walk, sweep kick, high kick, high kicks, monster kick | range | mobilise | hip knee | front | 0.35 | 0 | alternates travels | 0.8 1.3 2 | 0.4 0.6 1
circle, circles, circling, rotation, rotations | range | mobilise | hip shoulder | side turn | 0.15 | 0 | bare | 1 1.8 3 | -
arm circle, arm circles, shoulder circle, shoulder circles, shoulder rolls, windmill arms, shoulder roll | range | mobilise | shoulder | front side | 0.15 | 0 | - | 0.8 1.3 2.2 | -
arm swing, arm swings, cross-body arm swing, arm hug, arm hugs, hugs, chest openers, open and close arms, huggers | range | mobilise | shoulder | side | 0.2 | 0 | - | 0.8 1.2 2 | -
hip circle, hip circles, standing hip circle, hurdle circle, knee circles at hip | range | mobilise | hip | front side turn | 0.2 | 0 | - | 1.5 2.3 4 | -
ankle circle, ankle circles, ankle roll, ankle rolls, foot circles | range | mobilise | ankle | side turn | 0.1 | 0 | - | 1 1.6 2.5 | -
knee circle, knee circles, knee rolls | range | mobilise | ankle knee | turn | 0.1 | 0 | - | 1 1.7 2.5 | -
wrist circle, wrist circles, wrist roll, wrist rolls, hand circles | range | mobilise | wrist | side turn | 0.1 | 0 | - | 0.8 1.4 2.2 | -
wrist rock, wrist rocks, wrist flexion, wrist extension, forearm turn, pronation, supination, wrist flips | range | mobilise | wrist elbow | front turn | 0.15 | 0 | - | 1 1.8 3 | -
neck roll, neck circle, neck circles, neck rolls, neck turn, neck turns, neck tilt, neck tilts, head turns, nods, chin tuck, chin tucks | range | mobilise | neck | front side turn | 0.1 | 0 | - | 1.5 2.5 4 | -
neck isometric, neck isometrics, neck holds, neck push, head press, neck resistance, neck iso, neck isos, neck hold | hold | activate | neck | front side | 0.3 | 0 | - | 4 7 11 | -
trunk circle, trunk circles, waist circle, hip rolls standing, torso circles | range | mobilise | hip back | side turn | 0.15 | 0 | - | 1.5 2.5 4 | -
twist, twists, twisting, trunk twist, trunk twists, trunk rotation, torso twist, torso rotation, standing twist | range | mobilise | back | turn | 0.2 | 0 | alternates | 0.8 1.4 2.5 | -
russian twist, russian twists, seated twist, seated twists | stability | activate | back hip | turn | 0.4 | 0 | alternates | 0.7 1.1 2 | -
thoracic rotation, t-spine rotation, open book, open books, thread the needle, quadruped rotation, book openers, spine rotation | range | mobilise | back shoulder | turn | 0.15 | 0 | - | 2.5 4 6 | -
side bend, side bends, lateral bend, lateral flexion, side reach, side reaches | range | mobilise | back shoulder | side | 0.15 | 0 | alternates | 1.5 2.5 4 | -
reach, reaches, reaching, overhead reach, overhead reaches | range | mobilise | shoulder back | front side | 0.2 | 0 | - | 1.2 2 3.5 | -
reach and roll, reach, roll and lift, wall slide, wall slides, wall angel, wall angels, snow angel, floor angel | control | activate | shoulder back | side | 0.2 | 0 | - | 2 3.5 5 | -
hamstring scoop, hamstring scoops, scoops, walking scoop, hamstring sweep walk | range | mobilise | hip knee | front | 0.25 | 0 | alternates travels | 1.8 2.6 4 | 0.3 0.5 0.8
toe touch, toe touches, touch toes, forward fold, forward folds, hamstring sweep, sweep the floor | range | mobilise | hip back | front | 0.2 | 0 | alternates | 1.5 2.5 4 | -
windmill, windmills, standing windmill, opposite hand to toe, cross toe touch | range | mobilise | hip back shoulder | front turn | 0.25 | 0 | alternates | 1.2 2 3.5 | -
inchworm, inchworms, inch worm, hand walk-out, hand walkout, walkout, walk-out, walkouts | range | mobilise | ankle hip back shoulder | front | 0.4 | 0 | travels | 4 6 9 | 0.12 0.2 0.3
cat-camel, cat camel, cat-cow, cat cow, cat and camel, camel | range | mobilise | back | front | 0.1 | 0 | - | 2.5 4 6 | -
scorpion, scorpions, prone scorpion, iron cross, lying cross-over, lying leg crossover | range | mobilise | hip back | turn | 0.25 | 0 | alternates | 2 3.5 5.5 | -
windscreen wiper, wipers, hip wipers, knee drops, lying knee rolls, lower-trunk rotation | range | mobilise | hip back | turn | 0.15 | 0 | alternates | 1.5 2.5 4 | -
hip opener, hip openers, open the gate, close the gate, gate opener, open gate, gates, hip gates, hip closer, hip closers, over the fence, hurdle the fence | range | mobilise | hip | side turn | 0.25 | 0 | alternates travels | 1.2 2 3.2 | 0.35 0.55 0.9
90/90, ninety-ninety, hip switch, hip switches, seated hip rotation, shin box | range | mobilise | hip | turn | 0.2 | 0 | alternates | 2 3.5 6 | -
hip internal rotation, hip external rotation, knee in and out, knee-ins | range | mobilise | hip | turn | 0.15 | 0 | - | 1.5 2.5 4 | -
hip flexor rock, half-kneeling rock, rocking lunge, hip flexor mobilisation, kneeling rock | range | mobilise | hip | front | 0.2 | 0 | - | 1.8 2.8 4.5 | -
adductor rock, adductor rocks, frog rock, frog, frog stretch, rock back, quadruped rock | range | mobilise | hip | side | 0.2 | 0 | - | 1.8 2.8 4.5 | -
ankle rock, ankle rocks, knee to wall, knee-to-wall, ankle mobilisation, calf pump, calf pumps, pedal the feet, downward-dog pedal | range | mobilise | ankle | front | 0.2 | 0 | - | 1 2 3.5 | -
hurdle walk, hurdle walks, hurdle step, hurdle step-over, over-under, over and under, hurdle mobility, hurdle duck | range | mobilise | hip knee back | front side turn | 0.35 | 0 | alternates travels | 1.5 2.3 4 | 0.25 0.45 0.7
knee hug, knee hugs, knee pull, knee to chest, knees to chest, knee grab, high-knee pull, walking knee hug | range | mobilise | hip knee | front | 0.25 | 0 | alternates travels | 1.2 2 3.2 | 0.3 0.45 0.7
quad pull, quad pulls, walking quad pull, quad grab, heel-to-seat hold, walking quad stretch | range | mobilise | knee hip | front | 0.25 | 0 | alternates travels | 1.3 2.2 3.5 | 0.3 0.42 0.7
leg cradle, leg cradles, figure-four pull, cradle walk, shin grab, ankle grab, hip cradle, shin cradle | range | mobilise | hip knee | turn | 0.25 | 0 | alternates travels | 1.5 2.3 3.5 | 0.28 0.4 0.65
dislocate, dislocates, shoulder pass-through, pass-throughs, stick pass-over, band dislocate, shoulder circle with stick, stick circle, stick overhead and back, stick over and back | range | mobilise | shoulder | front | 0.15 | 0 | - | 2 3 5 | -
shoulder rotation, external rotation, internal rotation, rotator cuff, cuff rotation, band external rotation, no money, no moneys | strength | activate | shoulder | turn | 0.2 | 0 | - | 1.2 2 3.5 | -
shrug, shrugs, scapular squeeze, scap squeeze, shoulder-blade squeeze, scapular circles, scap push-up, scap push-ups | control | activate | shoulder | front | 0.2 | 0 | - | 1 1.8 3 | -
plank, planks, front plank, elbow plank, high plank | stability | activate | back shoulder hip | front | 0.35 | 0 | - | 15 25 45 | -
side plank, side planks, side bridge, side hold | stability | activate | back shoulder hip | side | 0.4 | 0 | - | 12 20 35 | -
plank tap, plank taps, shoulder tap, shoulder taps, plank reach, plank reaches, plank arm lift | stability | activate | back shoulder | front turn | 0.4 | 0 | alternates | 0.8 1.3 2.5 | -
plank rotation, plank rotations, plank twist, t-plank, side plank rotation | stability | activate | back shoulder | turn | 0.4 | 0 | alternates | 2 3 5 | -
plank jack, plank jacks | pulse | raise | back shoulder hip | side | 0.5 | 1 | - | 0.7 1 1.5 | -
dead bug, dead bugs, deadbug, deadbugs, dying bug | stability | activate | back hip shoulder | front | 0.25 | 0 | alternates | 2 3.5 6 | -
bird dog, bird dogs, bird-dog, birddog, pointer | stability | activate | back hip shoulder | front | 0.25 | 0 | alternates | 2.5 4 6.5 | -
hollow hold, hollow body, hollow rock, boat hold, v-sit | hold | activate | back hip | front | 0.4 | 0 | - | 10 20 30 | -
superman, supermans, back extension, back raise, prone lift, swimmers, aquaman, aquamen, bird lift | strength | activate | back hip shoulder | front | 0.3 | 0 | - | 1.8 3 5 | -
sit-up, sit-ups, situp, situps, crunch, crunches, curl-up, curl-ups | strength | activate | back hip | front | 0.35 | 0 | - | 1.3 2 3.5 | -
pallof, pallof press, anti-rotation press, band press-out | stability | activate | back shoulder | turn | 0.35 | 0 | - | 2 3.5 6 | -
chop, chops, wood chop, woodchop, woodchopper, lift and chop, diagonal chop | strength | activate | back shoulder hip | turn | 0.4 | 0 | - | 1.2 2 3.5 | -
crawl, crawls, crawling, bear crawl, bear crawls, bear walk | stability | activate | back shoulder hip knee | front | 0.5 | 0 | alternates travels | 0.5 0.8 1.2 | 0.4 0.7 1.1
crab walk, crab walks, crab crawl | stability | activate | back shoulder hip elbow | front | 0.45 | 0 | alternates travels | 0.5 0.8 1.2 | 0.35 0.6 0.9
lizard crawl, spider crawl, spider lunge crawl, leopard crawl | range | activate | back shoulder hip knee | front turn | 0.55 | 0 | alternates travels | 1.2 2 3 | 0.25 0.4 0.65
duck walk, duck walks, squat walk, squat walks | strength | activate | ankle knee hip | front | 0.5 | 0 | alternates travels | 0.8 1.3 2 | 0.25 0.45 0.7
seal walk, caterpillar walk, hand walk, bear-to-crab | control | activate | knee back shoulder | front | 0.45 | 0 | travels | 0.8 1.3 2 | 0.25 0.4 0.65
roll, rolls, rolling, forward roll, judo roll, log roll, breakfall, break-fall, breakfalls | coordination | activate | back shoulder neck | front turn | 0.4 | 0 | travels | 2 3.5 5.5 | 0.4 0.6 1
get-up, turkish get-up, down-up, down-ups, up-down, up-downs, drop and get up | coordination | activate | hip knee back shoulder | front | 0.55 | 0 | - | 1.8 3 5 | -
push-up, push-ups, press-up, press-ups, pushup, pushups, push up, push ups | strength | activate | shoulder elbow back | front | 0.5 | 0 | - | 1.2 2 3.5 | -
t push-up, t push-ups, t-push-up, push-up with rotation, rotational push-up | stability | activate | shoulder elbow back | turn | 0.5 | 0 | alternates | 2.5 3.8 5.5 | -
push-up plus, serratus push-up, push-up to down dog, dive-bomber, yoga push-up, hindu push-up | strength | activate | shoulder elbow back | front | 0.5 | 0 | - | 2 3.2 5 | -
clap push-up, plyo push-up, explosive push-up, drop push-up | jump | potentiate | shoulder elbow wrist | front | 0.75 | 0 | - | 1.3 2.2 3.5 | -
t raise, t raises, y raise, y raises, w raise, w raises, ytw, y-t-w, ytwl, prone raises, ts, ys, ws | control | activate | shoulder back | side | 0.25 | 0 | - | 1.5 2.5 4 | -
pull-apart, pull-aparts, pull apart, band pull-apart, band pull, face pull, face pulls | strength | activate | shoulder | side | 0.25 | 0 | - | 1.2 1.9 3 | -
row, rows, band row, band rows, inverted row, pull-up, pull-ups, chin-up, chin-ups, muscle-up | strength | activate | shoulder elbow back | front | 0.45 | 0 | - | 1.3 2.2 3.5 | -
press, presses, overhead press, shoulder press, band press, chest press | strength | activate | shoulder elbow | front | 0.4 | 0 | - | 1.3 2.2 3.5 | -
dip, dips, bench dip, curl, curls, biceps curl, triceps extension, elbow extension | strength | activate | shoulder elbow | front | 0.35 | 0 | - | 1.3 2 3.5 | -
balance, balances, balancing, single-leg stand, single-leg balance, stork, stork stand, stand on one leg | stability | activate | ankle knee hip | front side | 0.2 | 0 | - | 8 15 30 | -
star excursion, y-balance, balance reach, toe reach, clock reach, balance and reach | stability | activate | ankle knee hip | front side turn | 0.3 | 0 | - | 2 3.2 5 | -
stretch, stretches, stretching, static stretch | range | mobilise | hip knee | front | 0.1 | 0 | bare | 10 18 30 | -
calf stretch, achilles stretch, wall calf stretch | range | mobilise | ankle | front | 0.1 | 0 | - | 10 18 30 | -
quad stretch, quadriceps stretch, thigh stretch | range | mobilise | knee hip | front | 0.1 | 0 | - | 10 18 30 | -
hamstring stretch, hamstrings stretch, sit and reach, seated reach | range | mobilise | hip knee | front | 0.1 | 0 | - | 10 18 30 | -
handstand, handstands, handstand hold, wall handstand | strength | activate | shoulder wrist back | front | 0.5 | 0 | - | 8 15 30 | -
wheelbarrow, wheelbarrows, wheelbarrow walk | strength | activate | shoulder wrist back | front | 0.5 | 0 | travels | 0.5 0.8 1.2 | 0.4 0.6 0.9
sweeper, sweepers | range | mobilise | hip back | front | 0.25 | 0 | alternates travels | 1.5 2.3 3.5 | 0.3 0.5 0.8
hot potato, quick passes, one-touch passes, quick hands | craft | sport | shoulder elbow wrist | front | 0.4 | 0 | - | 0.8 1.3 2.5 | -
rebound your shot, rebounding, box-out, box-outs, box out, boxing out | craft | sport | ankle knee hip shoulder | front | 0.6 | 0 | - | 3 5 9 | -
mikan, mikans, mikan drill, form shot, form shots | craft | sport | ankle knee hip shoulder elbow wrist | front | 0.45 | 0 | - | 2 3.5 6 | -
setting, set against wall, overhead set, overhead sets, volley against wall, bump, bumps, forearm pass, forearm passes | craft | sport | ankle knee hip shoulder elbow wrist | front | 0.4 | 0 | - | 1.5 2.5 5 | -
raise, raises, raising, lift up | strength | activate | - | front | 0.25 | 0 | bare going | 1.3 2.2 4 | -
lower, lowers, lowering, eccentric, eccentrics | strength | activate | - | front | 0.35 | 0 | bare going | 2 3 5 | -
press, presses, pressing | strength | activate | - | front | 0.3 | 0 | bare going | 1.3 2.2 4 | -
curl, curls | strength | activate | - | front | 0.3 | 0 | bare going | 1.3 2.2 4 | -
pull, pulls | strength | activate | - | front | 0.3 | 0 | bare going | 1.3 2.2 4 | -
rock, rocks, rocking | range | mobilise | hip ankle | front side | 0.2 | 0 | bare going | 1.3 2.2 4 | -
scissor run, scissor runs, straight-leg shuffle | rhythm | raise | ankle knee hip | front | 0.6 | 0 | alternates travels | 0.25 0.35 0.5 | 1.8 2.6 3.4
groin stretch, adductor stretch, butterfly, butterfly stretch, straddle, straddle stretch, butterfly bounce, seated butterfly | range | mobilise | hip | side | 0.1 | 0 | - | 10 18 30 | -
glute stretch, piriformis stretch, figure-four stretch, pigeon, pigeon stretch | range | mobilise | hip | turn | 0.1 | 0 | - | 10 20 30 | -
hip flexor stretch, kneeling hip stretch, couch stretch, psoas stretch | range | mobilise | hip | front | 0.1 | 0 | - | 10 20 30 | -
shoulder stretch, cross-arm stretch, sleeper stretch, triceps stretch, chest stretch, pec stretch, lat stretch, cross-body stretch, doorway stretch, bicep stretch | range | mobilise | shoulder elbow | front side | 0.1 | 0 | - | 10 15 30 | -
back stretch, child's pose, down dog, downward dog, prayer stretch, knee-to-chest stretch | range | mobilise | back shoulder hip | front | 0.1 | 0 | - | 10 18 30 | -
forearm stretch, wrist stretch, wrist flexor stretch, wrist extensor stretch | range | mobilise | wrist elbow | front | 0.1 | 0 | - | 8 15 25 | -
neck stretch | range | mobilise | neck | front side | 0.1 | 0 | - | 8 15 25 | -
contract-relax, pnf, hold-relax, partner stretch | range | mobilise | hip knee | front | 0.2 | 0 | - | 15 25 40 | -
hold, holds, holding, isometric, isometrics, freeze, static hold | hold | activate | knee hip | front | 0.3 | 0 | bare going | 5 12 30 | -
foam roll, foam rolling, foam roller, roller, self-massage, massage, massage gun | tissue | mobilise | knee hip back | front | 0.05 | 0 | bare | 20 35 60 | -
ball release, lacrosse ball, trigger ball, trigger point, ball under foot, roll the foot, foot roll, lacrosse ball release | tissue | mobilise | ankle hip shoulder | front | 0.05 | 0 | bare | 20 30 60 | -
breath, breaths, breathe, breathing, belly breathing, box breathing, diaphragm breathing, inhale, exhale, slow breath, deep breath, slow deep breath, deep slow breath | calm | mobilise | back | front | 0.05 | 0 | - | 4 7 11 | -
shake out, shake-out, shake off, loosen, loosen up, shake the legs | pulse | raise | knee hip shoulder | front | 0.1 | 0 | - | 8 15 30 | -
drop step, drop steps, hip turn, hip turns and go | change | potentiate | ankle knee hip | front turn | 0.6 | 0 | - | 0.8 1.3 2.2 | -
cone, cones, cone drill, cone drills, t-drill, t drill, box drill, star drill, square drill, pro agility, 5-10-5, l-drill, illinois, illinois run, m drill, w drill, arrowhead, y drill | change | potentiate | ankle knee hip | front side | 0.7 | 0 | travels | - | 1.8 2.7 3.7
mirror, mirrors, mirroring, mirror drill, shadow, shadowing, shadow partner, copy your partner | reaction | potentiate | ankle knee hip | front side | 0.65 | 0 | - | - | -
reaction, reactions, react, reactive, on the whistle, on the clap, on the call, on a signal, ball drop, reaction start | reaction | potentiate | ankle knee hip | front side | 0.75 | 0 | travels | 3 5 8 | 2 3.2 4.5
tag, tig, chase, chases, chasing, evasion, dodge, dodging, catch your partner, knee tag, shoulder tag | game | raise | ankle knee hip | front side turn | 0.65 | 0 | - | - | -
game, games, small-sided game, small-sided games, rondo, rondos, keep-away, keep away, possession, keep ball, relay, relays, relay race, bulldog, stuck in the mud, rats and rabbits, handball game, king of the ring, sharks and minnows, cat and mouse, capture the flag, ultimate game | game | raise | ankle knee hip | front side turn | 0.65 | 0 | - | - | -
throw, throws, throwing, toss, tosses, long toss, play catch | craft | sport | shoulder elbow wrist back | turn | 0.45 | 0 | - | 3 5 8 | -
catch, catches, catching, fielding, ground ball, ground balls, fly ball, fly balls, grounders, fungo, fungos, pop fly, pop flies, infield practice | craft | sport | shoulder elbow wrist knee | front side | 0.4 | 0 | - | 3 5 9 | -
pass, passes, passing, one-touch, two-touch, wall pass, give and go, pass and move, chest pass, bounce pass | craft | sport | ankle knee hip shoulder | front turn | 0.4 | 0 | - | 2 3 5 | -
dribble, dribbles, dribbling, ball carry, ball handling, toe taps, sole taps, ball touches, stickhandling, stick-handling | craft | sport | ankle knee hip wrist | front side | 0.45 | 0 | travels | - | 1.2 2.1 3.5
shot, shots, shoot, shooting, lay-up, lay-ups, layup, layups, jump shot, free throw, finishing | craft | sport | ankle knee hip shoulder elbow wrist | front turn | 0.5 | 0 | - | 4 7 12 | -
kick, kicks, kicking, punt, punts, drop kick, volley kick, cross the ball, crosses | craft | sport | ankle knee hip back | front turn | 0.55 | 0 | - | 4 7 12 | -
serve, serves, serving, service, overhead serve | craft | sport | shoulder elbow wrist back | turn | 0.6 | 0 | - | 6 9 14 | -
rally, rallies, hit, hitting, mini-rally, volley, volleys, groundstroke, groundstrokes, spike, spikes, set, sets the ball, dig, digs, pepper | craft | sport | ankle knee hip shoulder elbow wrist | front turn | 0.5 | 0 | - | 2 3 5 | -
swing, swings, swinging, dry swing, practice swing, bat swing, club swing, stick swing, racket swing, tee work, tee swing, tee swings, batting tee | craft | sport | back shoulder hip wrist | turn | 0.45 | 0 | - | 3 6 10 | -
bunt, bunts, bunting, tee hit, soft toss, batting, front-foot drive, throw-down, throw-downs | craft | sport | shoulder elbow wrist back | turn | 0.35 | 0 | - | 4 6 10 | -
pitch, pitches, pitching, bowl, bowls, bowling, delivery, deliveries, flat-ground throws, bullpen | craft | sport | shoulder elbow wrist back hip knee | front turn | 0.65 | 0 | - | 9 15 25 | -
tackle, tackles, tackling, hit the pad, hit-ups, pad hit, contact bag, bag hit, bump, bumps, body contact, body check | craft | sport | back shoulder hip neck | front turn | 0.7 | 0 | - | 3 5 9 | -
scrum, scrums, scrummage, scrum engagement, bind and push, ruck, rucks, maul, clear-out, clear-outs | craft | sport | neck back shoulder hip knee | front | 0.7 | 0 | - | 6 10 18 | -
line-out, line-outs, lineout, lineouts, lift and throw, lineout lift | craft | sport | ankle knee hip shoulder | front | 0.6 | 1 | - | 6 10 18 | -
paddle, paddles, paddling, stroke, strokes, oar, rowing stroke | craft | sport | back shoulder elbow hip | front turn | 0.45 | 0 | - | 1.2 2.2 3.3 | -
swim, swims, swimming, freestyle, drill length | pulse | raise | shoulder back hip | front turn | 0.45 | 0 | alternates travels | - | 0.7 1.1 1.6
skate, skates, skating, lap on skates, glide, glides, stops and starts, edge work | pulse | raise | ankle knee hip | side | 0.5 | 0 | alternates travels | - | 3.5 5 7.5
bike, biking, cycle, cycling, stationary bike, spin bike, exercise bike | pulse | raise | knee hip | front | 0.4 | 0 | - | - | -
ergometer, erg, rower, rowing machine, ski erg, cross-trainer, elliptical, treadmill | pulse | raise | knee back shoulder hip | front | 0.45 | 0 | - | - | -
pedal sprint, bike sprint, bike burst, erg burst, power strokes | acceleration | potentiate | knee hip | front | 0.85 | 0 | - | 5 8 12 | -
medicine-ball throw, medicine ball throw, med-ball throw, med ball throws, medicine-ball throws, rotational throw, rotational throws, scoop toss, side toss, med-ball toss | strength | potentiate | back shoulder hip elbow | turn | 0.65 | 0 | - | 2 3.5 5.5 | -
medicine-ball slam, med-ball slam, ball slam, ball slams, slam, slams, overhead throw, chest throw, med-ball chest pass | strength | potentiate | back shoulder elbow | front | 0.65 | 0 | - | 1.8 3 4.5 | -
partner resistance, partner-resisted, resisted run, partner hold run, harness, push the partner, towel resistance, shoulder charge, partner push | strength | potentiate | ankle knee hip back | front | 0.7 | 0 | travels going | 4 6 10 | 0.8 1.6 2.6
rehearsal, rehearse, rehearsals, walk-through, walk through, dry run, shape work, set play, set plays, unopposed, team run, patterns of play | craft | sport | ankle knee hip | front side turn | 0.4 | 0 | - | - | -
footwork, split step, split steps, shadow swing, shadow strokes, shadow boxing, shadow-boxing, shadow play, approach steps, stance work | craft | sport | ankle knee hip shoulder | front side turn | 0.5 | 0 | - | 1.2 2.5 4 | -
punch, punches, jab, jabs, strike, strikes, round kick, uchi-komi, uchikomi, fit-ins, shots on partner, pummel, pummelling | craft | sport | shoulder elbow back hip | turn | 0.55 | 0 | alternates | 0.5 1.2 3 | -
bar work, handstand, handstands, cartwheel, cartwheels, handspring, leap, leaps, split leap, chasse, kip swing | craft | sport | shoulder wrist back hip knee | front side | 0.55 | 1 | - | 2.5 4.5 8 | -
# More that people do.
flamingo, flamingo stand, tree pose | stability | activate | ankle hip knee | front side | 0.2 | 0 | - | 4 8 15 | -
monster steps, monster step, band steps, banded steps | strength | activate | hip knee | side front | 0.35 | 0 | travels | 0.8 1.2 2 | 0.4 0.6 0.9
scorpion kick, scorpion kicks | range | mobilise | hip back | turn | 0.3 | 0 | alternates | 2 3 5 | -
stir the pot, stirring the pot | stability | activate | back shoulder | front turn | 0.4 | 0 | - | 2 3 5 | -
cobra, cobras, cobra press, cobra stretch, up-dog, upward dog, sphinx, sphinx hold, seal stretch | range | mobilise | back | front | 0.2 | 0 | - | 2 4 8 | -
figure four, figure-four, figure 4, figure-4, seated four | range | mobilise | hip | turn front | 0.2 | 0 | - | 3 5 10 | -
cat stretch, cat stretches, cat and cow | range | mobilise | back | front | 0.2 | 0 | - | 3 4 6 | -
hip roll, hip rolls, pelvis rolls | range | mobilise | hip back | turn side | 0.2 | 0 | alternates | 1.5 2.5 4 | -
marble pick-up, marble pick up, marble pick-ups, towel scrunch, towel scrunches, toe scrunches, short foot, toe yoga, arch lifts | strength | activate | ankle | front | 0.15 | 0 | - | 2 3 5 | -
toe reaches | range | mobilise | back hip shoulder | turn front | 0.25 | 0 | alternates | 1.5 2.5 4 | -
depth drop, depth drops, altitude drop, altitude landing, box step-off, box step-offs, step-off, step-offs | landing | potentiate | ankle knee hip | front | 0.75 | 1 | - | 3 4 7 | -
rolling start, rolling starts, kneeling start | acceleration | potentiate | ankle knee hip | front | 0.9 | 0 | travels | - | 3.5 4.8 6.5
caveman walk | strength | activate | ankle knee hip | front | 0.4 | 0 | travels | - | 0.4 0.7 1
halo, halos | range | mobilise | shoulder back | side turn | 0.25 | 0 | alternates | 2 3 4 | -
thruster, thrusters, wall ball, wall balls | strength | activate | knee hip shoulder | front | 0.6 | 0 | - | 1.5 2.5 4 | -
505, 5-0-5, compass drill | change | potentiate | ankle knee hip | front side | 0.9 | 0 | travels | 4 6 9 | 2.5 3.5 4.5
simon says, rock paper scissors, capture the flag, capture, rob the nest, steal the bacon, follow the leader, dodgeball, knockout | game | raise | ankle knee hip | front side turn | 0.6 | 0 | - | - | -
hanging, dead hang, bar hang | hold | activate | shoulder wrist | front | 0.25 | 0 | - | 10 20 40 | -
shrimp, shrimps, shrimping, hip escape, hip escapes | coordination | raise | hip back | side turn | 0.45 | 0 | alternates travels | 2 3 4 | 0.4 0.7 1
pummeling, hand fighting, clinch | craft | sport | shoulder neck back | front turn | 0.6 | 0 | - | - | -
keepy uppies, kick-ups, kick ups, juggling, ball juggling | craft | sport | ankle hip | front | 0.4 | 0 | - | 0.6 1 1.5 | -
smash, smashes, overhead smash, attack swing | craft | sport | shoulder elbow wrist back | front turn | 0.7 | 0 | - | 4 7 12 | -
v-up, v-ups, jackknife, jackknives | strength | activate | hip back | front | 0.4 | 0 | - | 1.5 2.5 4 | -
sun salutation, sun salutations, yoga flow, flow | range | mobilise | hip back shoulder | front | 0.3 | 0 | - | 20 30 45 | -
warrior, warrior one, warrior two, warrior pose | range | mobilise | hip knee | front side | 0.25 | 0 | - | 8 15 30 | -
visualise, visualize, visualisation, visualization, picture it, quiet minutes, mindful minute | calm | own | back | front | 0.05 | 0 | - | - | -
sled push, sled pushes, prowler push, prowler, sled drag, tyre flip, tyre flips | strength | potentiate | ankle knee hip back | front | 0.8 | 0 | travels | - | 1 1.6 2.5
carry, carries, suitcase carry, farmers walk, farmers carry, boat carry, yoke walk | strength | activate | hip back shoulder wrist | front side | 0.4 | 0 | travels | - | 0.8 1.2 1.6
boxing, combinations on pads | craft | raise | shoulder back hip | turn front | 0.6 | 0 | - | 0.5 0.8 1.2 | -
fartlek, speed play, surges | pulse | raise | ankle knee hip | front | 0.65 | 0 | travels | - | 2.5 3.5 5
in and outs, ins and outs, in-out runs, fly-float-fly, flying 10s, flying 20s, flying 30s, flying tens | sprint | potentiate | ankle knee hip | front | 0.9 | 0 | travels | - | 5 6.5 8
sculling, scull, sculls | craft | sport | shoulder wrist | front | 0.4 | 0 | travels | - | 0.4 0.6 1
prone angel, prone angels, swimmer lift | strength | activate | shoulder back | side front | 0.3 | 0 | - | 2 3.5 5 | -
nodding, yes no maybe, head nods | range | mobilise | neck | front turn | 0.1 | 0 | - | 1.5 2.5 4 | -
gaze drill, eye tracking, eyes tracking, saccades, pencil push-ups, vision drill | reaction | activate | neck | turn | 0.1 | 0 | - | 1 2 3 | -
`
