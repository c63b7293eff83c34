"""What a field is, where one reads it off and what happens without it, for fields whose form does not say it itself.

Keyed by the end of a field's place in the document; the longest end that fits counts.
"""

from __future__ import annotations

TIPS = {
    "name": "What you call it; it stands on drawings, lists and in what Uncle says.",
    "source": "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, an estimate 15 %, a guess 30 %.",
    "frame_source": "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, a guess 30 %.",
    "bought_source": "Weighed is best; without a scale the papers, and the doubt in the reading grows.",
    # brief
    "reading.length": "Every length of this build is shown so; any other unit may still be typed.",
    "reading.mass": "Every weight of this build is shown so; any other unit may still be typed.",
    "reading.volume": "What tanks hold is shown so; any other unit may still be typed.",
    "brief.notes": "Anything worth remembering; nothing is reckoned from it.",
    "brief.sits_up": "Then 0.90 m (3 ft) over the mattress is asked for.",
    "brief.stands": "Then the tallest sleeper and 50 mm (2 in) is asked for between floor and ceiling.",
    "people.height": "Body height; the bed wants 100 mm (4 in) more. Left empty, no bed is judged too short.",
    "people.mass": "Counts on the bed and beside the door in camp; left empty, nobody is weighed.",
    "vehicles.tow_limit": "The heaviest trailer with brakes in the car's papers; left empty, it is not checked.",
    "vehicles.front_empty": "Kilograms on the front axle with nobody and nothing in it, from the papers or a scale, one axle at a time.",
    "vehicles.rear_empty": "Kilograms on the rear axle with nobody and nothing in it, from the papers or a scale, one axle at a time.",
    "vehicles.wheelbase": "Front wheel's middle to rear wheel's middle; in the papers, or a tape along the sill.",
    # rig
    "rig.carrier": "A trailer stands on a coupler and its wheels; a camper box on the two axles of its vehicle.",
    "rig.base": "An own frame is the sum of its parts; a bought one is one weighing of the whole with what stood on the ball.",
    "rig.bought_total": "The whole trailer as it was bought, unhitched on a public scale or from its papers.",
    "rig.frame_width": "Outside to outside of the long rails; the bolts and the axle's order read it.",
    "rig.track": "Middle of the left tyre to middle of the right one, on the ground; without it left and right cannot be told.",
    "rig.suspension": "Equalised leaf springs share evenly; independent torsion arms share by how high the ball is.",
    "rig.spring_side": "Leaf over the axle rides higher than leaf under it.",
    "rig.ball_height": "Ground to the middle of the car's ball with both standing loaded.",
    "rig.jack_rating": "On the jack's plate: what it lifts at the nose. One and a half times what stands on it is wanted.",
    "tyre.diameter": "Ground to the top of the tyre, standing loaded; on the sidewall as width, share and rim.",
    "tyre.width": "Across the tyre at its widest; for the room in its wheel box.",
    "bed.wheelbase": "Front wheel's middle to rear wheel's middle of the vehicle; nothing is read before it is known.",
    "bed.front_empty": "On the front axle with the bed bare and one driver or none, as weighed; without it no axle is read.",
    "bed.rear_empty": "On the rear axle with the bed bare, as weighed; without it no axle is read.",
    "bed.bed_length": "Inside of the bed, headboard to tailgate.",
    "bed.bed_width": "Between the bed's sides, or over them where the box stands on top.",
    "bed.track": "Middle of the left rear tyre to middle of the right one; without it left and right cannot be told.",
    "bed.front_rating": "On the vehicle's plate or in its papers: what the front axle may carry.",
    "bed.rear_rating": "On the vehicle's plate or in its papers: what the rear axle may carry.",
    "bed.gross_rating": "On the vehicle's plate or in its papers: the vehicle with everything on and in it.",
    # shell
    "shell.form": "The outline that everything else of the body follows: seen from its left, or from behind.",
    "shell.low_side": "Which edge of the roof is the low one; water runs there.",
    "shell.length": "Outside of the body, front to rear.",
    "shell.width": "Outside of the body, left to right.",
    "nose_box.length": "Of the box ahead of the body, along the drawbar.",
    "nose_box.width": "Of the box ahead of the body, across.",
    "nose_box.height": "Of the box ahead of the body, upward from the body's underside.",
    "framing.school": "How the body is built; sticks, sheets and joints follow from it.",
    "openings.kind": "Doors and hatches are ways in and out; vents air; glands and screws are holes that leak.",
    "openings.face": "The side of the body that it is cut into.",
    "stick.thick": "How much of an upright shows in the face; the school's own size where nothing is typed.",
    "stick.deep": "How far an upright goes through the wall; the foam is as thick. The school's own where empty.",
    "rib.thick": "How much of a spar or rafter shows from below; the school's own where nothing is typed.",
    "rib.deep": "How high a spar or rafter stands; the roof's foam is as thick. The school's own where empty.",
    "joist.thick": "How much of a joist shows from above; the school's own where nothing is typed.",
    "joist.deep": "How high a joist stands; the floor's foam is as thick. The school's own where empty.",
    "openings.hung": "The edge that its hinges are on.",
    "openings.seal": "What keeps rain and dust out; without one Uncle minds.",
    "openings.drip": "A small roof over it that sheds the water before it reaches the seal.",
    "openings.mass": "Leaf, frame and glass; left empty, a guess by its size counts with 30 % doubt.",
    # things
    "things.kind": "What it is for; catalogue, colours and checks read it.",
    "things.mass": "Empty, as it stands; what a tank holds comes on top.",
    "things.length": "Along the trailer while it is not turned.",
    "things.width": "Across the trailer while it is not turned.",
    "things.height": "From its underside to its top.",
    "things.turn": "Seen from above, in quarter turns; a quarter takes its front to the left.",
    "things.outside": "On drawbar, roof or tail; then the body's walls are not in its way.",
    "things.stays": "Uncle leaves it where it is when he looks for what to move.",
    "things.cargo": "It leaves with its people: not aboard for sale or as built.",
    "things.arrival": "Blocks, cord, hose: it should be reached from outside first of all.",
    "things.roles": "What it does; water, power, warmth, alarms and seats are counted and judged by it.",
    "things.states": "Its form in this mode: folded, let down, slid out.",
    "things.hold": "What keeps it in place in a stop; nothing said counts as loose.",
    "things.held_by": "In your own words; it stands on the list and is not reckoned with.",
    "things.burns": "A flame inside is judged with alarms, vents and ways out, whatever it burns.",
    "hold.many": "How many of them; straps that lead both ways hold by half of them each way.",
    "hold.into": "Where rings and bolts end: the frame holds most, a skin alone little.",
    "latch.kind": "What keeps its door shut in a stop.",
    "tank.volume": "What it holds to the brim, as its maker says.",
    "tank.contents": "What is in it: its weight and what is judged beside it follow.",
    "tank.shape": "Its outside; where the liquid's weight goes with its level follows from it.",
    "tank.axis": "The way that a cylinder's length points.",
    "tank.thin": "Which end of a wedge is the low one.",
    "tank.slant": "Which of a wedge's faces slants.",
    "states.name": "What this form is called: folded, let down, slid out.",
    "states.length": "In this form, along the trailer while it is not turned.",
    "states.width": "In this form, across the trailer while it is not turned.",
    "states.height": "In this form, from its underside to its top.",
    "clear.kind": "What wants the room: a door's swing, a drawer, a lid, a hand, air, heat.",
    "openings.id": "In camp doors and hatches stand open unless they stay shut; shut, they block no place and no way.",
}
LISTS = frozenset(
    ("people", "vehicles", "axles", "openings", "faces", "things", "states", "clear", "layers", "cases", "modes")
)


def tip_of(path: str) -> str:
    """The sentence for a place in the document; "" where there is none. Ids in lists are left out of it."""
    steps = path.split(".")
    named = [step for at, step in enumerate(steps) if at == 0 or steps[at - 1] not in LISTS]
    for much in range(len(named), 0, -1):
        found = TIPS.get(".".join(named[-much:]))
        if found is not None:
            return found
    return ""
