// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/catalogue.h"

#include "base/document.h"
#include "base/unfit.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <set>
#include <utility>

namespace jg {

using nlohmann::json;

std::span<const MeasureGroup> measureGroups() {
    static constexpr std::array groups = {MeasureGroup{"lower"}, MeasureGroup{"trunk"}, MeasureGroup{"arm"},
                                          MeasureGroup{"timing"}, MeasureGroup{"own"}};
    return groups;
}

std::size_t placeInBody(std::string_view group) {
    const auto groups = measureGroups();
    return static_cast<std::size_t>(
        std::find_if(groups.begin(), groups.end(), [&](const auto& g) { return g.id == group; }) -
        groups.begin());
}

Message nameOfGroup(std::string_view group) {
    const std::size_t place = placeInBody(group);
    return place < measureGroups().size() ? measureGroups()[place].name() : Message{};
}

namespace {

/// What is known of a kind: its id in the playbook file, how many points it takes, whether its number is a
/// part of the height, and whether it changes with the camera's roll. In the order of MeasureKind.
struct KindRow {
    std::string_view id;
    MeasureKind kind;
    std::size_t least, most;
    bool needsHeight = false, needsLevel = false;
};

constexpr std::array kKinds = {
    KindRow{"jointAngle", MeasureKind::JointAngle, 3, 3},
    KindRow{"lineToLine", MeasureKind::LineToLine, 4, 4},
    KindRow{"tilt", MeasureKind::Tilt, 2, 2, false, true},
    KindRow{"tiltAcross", MeasureKind::TiltAcross, 2, 2, false, true},
    KindRow{"aboveLine", MeasureKind::AboveLine, 3, 3},
    KindRow{"aboveLevel", MeasureKind::AboveLevel, 2, 2, false, true},
    KindRow{"direction", MeasureKind::Direction, 2, 2, false, true},
    KindRow{"changeOfAngle", MeasureKind::ChangeOfAngle, 6, 6},
    KindRow{"changeOfSlope", MeasureKind::ChangeOfSlope, 4, 4},
    KindRow{"offLine", MeasureKind::OffLine, 3, 6, true, false},
    KindRow{"fall", MeasureKind::Fall, 2, 2, true, true},
    KindRow{"fallAgainst", MeasureKind::FallAgainst, 4, 4, true, true},
    KindRow{"above", MeasureKind::Above, 2, 2, true, true},
    KindRow{"ahead", MeasureKind::Ahead, 2, 2, true, true},
    KindRow{"shareAhead", MeasureKind::ShareAhead, 3, 3, false, true},
    KindRow{"across", MeasureKind::Across, 2, 2, true, true},
    KindRow{"acrossOf", MeasureKind::AcrossOf, 4, 4, false, true},
    KindRow{"distance", MeasureKind::Distance, 2, 2, true, false},
    KindRow{"ratio", MeasureKind::Ratio, 4, 4},
    KindRow{"forwardDown", MeasureKind::ForwardDown, 2, 2, false, true},
    KindRow{"turnSide", MeasureKind::TurnSide, 4, 4},
    KindRow{"turnFront", MeasureKind::TurnFront, 4, 4},
    KindRow{"turnFrontSigned", MeasureKind::TurnFrontSigned, 4, 4},
    KindRow{"turnBetween", MeasureKind::TurnBetween, 8, 8},
    KindRow{"timeBetween", MeasureKind::TimeBetween, 0, 0},
    KindRow{"frameCount", MeasureKind::FrameCount, 0, 0},
    KindRow{"seen", MeasureKind::Seen, 0, 0},
    KindRow{"spin", MeasureKind::Spin, 0, 0},
    KindRow{"releaseInstant", MeasureKind::ReleaseInstant, 6, 6},
    KindRow{"looksLike", MeasureKind::LooksLike, 0, 0},
    KindRow{"ballSpeed", MeasureKind::BallSpeed, 0, 0},
    KindRow{"ballTurns", MeasureKind::BallTurns, 0, 0},
};

const KindRow& rowOf(MeasureKind kind) {
    return kKinds.at(static_cast<std::size_t>(kind));
}

} // namespace

Moment MeasureDefinition::shownAt() const {
    const auto last =
        std::find_if(moments.rbegin(), moments.rend(), [](Moment m) { return m != Moment::Set; });
    return last == moments.rend() ? moments.back() : *last;
}

bool MeasureDefinition::seenFrom(View view) const {
    return std::find(views.begin(), views.end(), view) != views.end();
}

bool MeasureDefinition::needsHeight() const {
    return rowOf(kind).needsHeight;
}

bool MeasureDefinition::needsLevel() const {
    return rowOf(kind).needsLevel;
}

bool MeasureDefinition::hasPoints() const {
    return !slots.empty();
}

bool MeasureDefinition::isAngle() const {
    return unit == "deg";
}

namespace {

const KindRow& kindFromId(const std::string& id) {
    for (const KindRow& row : kKinds)
        if (row.id == id) return row;
    throw Unfit(msg("playbook.kind-unknown", {{"id", id}}));
}

Moment momentAt(const json& value) {
    const auto id = value.get<std::string>();
    if (const auto moment = momentFromId(id)) return *moment;
    throw Unfit(msg("playbook.position-unknown", {{"id", id}}));
}

Slot slotOf(const json& row, Moment standard) {
    Slot slot{row.at("name").get<std::string>(), Landmark::Head, standard};
    const auto id = row.at("landmark").get<std::string>();
    const auto landmark = landmarkFromId(id);
    if (!landmark) throw Unfit(msg("playbook.landmark-unknown", {{"id", id}}));
    slot.landmark = *landmark;
    if (row.contains("at")) slot.at = momentAt(row["at"]);
    slot.frames = row.value("frames", 0);
    return slot;
}

MeasureDefinition measureOf(const json& row) {
    MeasureDefinition m;
    m.id = row.at("id");
    m.name = row.at("name");
    m.shortName = row.value("shortName", m.name);
    m.group = row.at("group");
    const KindRow& kind = kindFromId(row.at("kind"));
    m.kind = kind.kind;
    m.unit = row.at("unit");
    for (const auto& p : row.at("positions")) m.moments.push_back(momentAt(p));
    if (m.moments.empty()) throw Unfit(msg("playbook.no-position"));
    for (const auto& p : row.value("points", json::array())) m.slots.push_back(slotOf(p, m.moments.front()));
    for (const auto& v : row.at("views")) {
        const auto view = viewFromId(v.get<std::string>());
        if (!view) throw Unfit(msg("playbook.view-unknown", {{"id", v.dump()}}));
        m.views.push_back(*view);
    }
    m.formula = row.at("formula");
    m.hint = row.value("hint", "");
    m.source = row.at("source");
    m.unreliable = row.value("unreliable", "");
    m.sign = row.value("sign", 1);
    m.pastStraight = row.value("pastStraight", false);
    m.options = row.value("options", m.options);
    m.numbers = row.value("numbers", m.numbers);
    m.protectsArm = row.value("protectsArm", false);
    m.plainly = row.value("plainly", "");
    m.plainlyOther = row.value("plainlyOther", "");
    m.goalUp = row.value("goalUp", "");
    m.feelUp = row.value("feelUp", "");
    m.feelDown = row.value("feelDown", "");
    m.feel = row.value("feel", "");
    m.goalDown = row.value("goalDown", "");
    m.goal = row.value("goal", "");
    m.praise = row.value("praise", m.praise);
    if (m.slots.size() < kind.least || m.slots.size() > kind.most)
        throw Unfit(
            msg("playbook.points", {{"points", m.slots.size()}, {"least", kind.least}, {"most", kind.most}}));
    const bool two = m.kind == MeasureKind::TimeBetween || m.kind == MeasureKind::FrameCount ||
                     m.kind == MeasureKind::BallSpeed;
    if (two && m.moments.size() != 2) throw Unfit(msg("playbook.two-positions"));
    if (m.kind == MeasureKind::BallTurns && m.moments.size() != 3)
        throw Unfit(msg("playbook.three-positions"));
    if ((m.kind == MeasureKind::Seen) != !m.options.empty()) throw Unfit(msg("playbook.options"));
    if (m.sign != 1 && m.sign != -1) throw Unfit(msg("playbook.sign"));
    return m;
}

} // namespace

Result<std::vector<MeasureDefinition>> parseMeasures(std::string_view text) {
    std::vector<MeasureDefinition> all;
    Message at = msg("playbook.the-file");
    try {
        const json document = parseDocument(text);
        std::set<std::string> seen;
        for (const auto& row : document.at("measures")) {
            at = msg("playbook.measure", {{"id", row.value("id", "?")}});
            all.push_back(measureOf(row));
            if (!seen.insert(all.back().id).second) throw Unfit(msg("playbook.id-twice"));
        }
    } catch (const std::exception& e) {
        return fail(ErrorCode::BadInput,
                    msg("playbook.measures-unreadable", {{"place", at}, {"why", whyUnfit(e)}}));
    }
    return all;
}

const MeasureDefinition* findMeasure(const std::vector<MeasureDefinition>& all, std::string_view id) {
    const auto it = std::find_if(all.begin(), all.end(), [&](const auto& m) { return m.id == id; });
    return it == all.end() ? nullptr : &*it;
}

} // namespace jg
