package movement

// partsText is the table of parts of the body.
const partsText = `# Parts of the body by their names: words | joints | planes.
foot, feet, toe, toes, arch, sole, heel, heels | ankle | front
ankle, ankles, shin, shins, tibialis, peroneal, peroneals | ankle | front side
calf, calves, achilles, soleus, gastroc | ankle | front
knee, knees, patella | knee | front
hamstring, hamstrings, hammy, hammies, hams, back of the thigh | hip knee | front
quad, quads, quadriceps, thigh, thighs | knee hip | front
groin, groins, adductor, adductors, inner thigh, inner thighs | hip | side
glute, glutes, buttock, buttocks, seat, gluteal, glute med | hip | front side turn
piriformis, hip rotator, hip rotators, deep hip | hip | turn
hip flexor, hip flexors, psoas, iliopsoas | hip | front
abductor, abductors, outer hip, outside hip, it band, itb, tfl | hip | side
hip, hips, pelvis | hip | front side turn
leg, legs, lower body, lower limb | ankle knee hip | front
core, trunk, torso, midsection, waist | back | front side turn
abs, abdominal, abdominals, stomach, belly | back | front
oblique, obliques, side of the body | back | side turn
lower back, low back, lumbar, back, spine, erectors | back | front
upper back, thoracic, t-spine, t spine, mid-back, ribs, rib cage | back shoulder | turn
shoulder, shoulders, delts, deltoid | shoulder | front side turn
rotator cuff, cuff, posterior cuff | shoulder | turn
shoulder blade, shoulder blades, scapula, scapulae, scap, scaps, traps, rhomboids | shoulder | front side
chest, pec, pecs | shoulder | side
lat, lats, armpit | shoulder back | front side
arm, arms, upper body, upper limb | shoulder elbow | front
elbow, elbows, biceps, triceps | elbow | front
forearm, forearms, grip | wrist elbow | front turn
wrist, wrists, hand, hands, finger, fingers, thumb | wrist | front side
neck, head, chin | neck | front side turn
whole body, full body, total body, all-over | ankle knee hip back shoulder | front side turn
`
