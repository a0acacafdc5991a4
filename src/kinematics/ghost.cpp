// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinematics/ghost.h"

#include "kinematics/feet.h"
#include "kinematics/geometry.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace jg {

namespace {

using L = Landmark;

/// From the middle of the body outward.
const std::vector<std::vector<Landmark>> kChains = {
    {L::Pelvis, L::MidBack, L::Neck, L::Head, L::Crown},
    {L::Neck, L::Chin},
    {L::Neck, L::LeadShoulder, L::LeadElbow, L::LeadWrist, L::Glove},
    {L::Neck, L::BackShoulder, L::BackElbow, L::BackWrist, L::Ball},
    {L::Pelvis, L::LeadHip, L::LeadKnee, L::LeadAnkle, L::LeadToe},
    {L::Pelvis, L::BackHip, L::BackKnee, L::BackAnkle, L::BackToe},
    {L::LeadAnkle, L::LeadHeel, L::LeadToe},
    {L::BackAnkle, L::BackHeel, L::BackToe},
    {L::LeadHip, L::BackHip},
    {L::LeadShoulder, L::BackShoulder}};

/// Seen shorter than this part of the body's extent, half a width lies mostly along the view: own choice.
constexpr double kEndOn = 0.12;

bool isHalfWidth(Landmark middle, Landmark side) {
    return (middle == L::Pelvis && (side == L::LeadHip || side == L::BackHip)) ||
           (middle == L::Neck && (side == L::LeadShoulder || side == L::BackShoulder));
}

/// Largest distance of two joints.
double extentOf(const JointPlaces& pose) {
    double extent = 0;
    for (const auto& [a, p] : pose)
        for (const auto& [b, q] : pose) extent = std::max(extent, length(p - q));
    return extent;
}

/// What stays between two joints: the length, or the whole vector.
struct Bond {
    Landmark a, b;
    bool directed;
};

std::vector<Bond> bondsOf(const GhostTask& task) {
    const double extent = extentOf(task.joints);
    const auto lineMeasured = [&](L one, L other) {
        return task.measured.contains(one) && task.measured.contains(other);
    };
    std::vector<Bond> bonds;
    for (const auto& [a, b] : limbsOf(task.joints)) {
        const bool measured = a == L::Pelvis ? lineMeasured(L::LeadHip, L::BackHip)
                                             : lineMeasured(L::LeadShoulder, L::BackShoulder);
        const bool endOn = length(task.joints.at(a) - task.joints.at(b)) < kEndOn * extent;
        bonds.push_back({a, b, isHalfWidth(a, b) && endOn && !measured});
    }
    return bonds;
}

/// One free coordinate: a joint moves along a direction.
struct Freedom {
    Landmark joint;
    ImagePoint along;
};

class Solver {
public:
    explicit Solver(const GhostTask& task)
        : task_(task)
        , bonds_(bondsOf(task)) {
        for (const auto& [joint, at] : task.joints) {
            if (task.standing.contains(joint)) continue;
            if (task.sliding.contains(joint)) {
                freedoms_.push_back({joint, task.ground});
            } else {
                freedoms_.push_back({joint, {1, 0}});
                freedoms_.push_back({joint, {0, 1}});
            }
        }
        moved_ = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(freedoms_.size()));
    }

    Result<Ghost> solve() {
        const double before = task_.number(task_.joints);
        if (!std::isfinite(before) || freedoms_.empty()) return unmet();
        const double gap = task_.wanted - before;
        const int steps = std::max(1, static_cast<int>(std::ceil(std::abs(gap) / task_.largestStep)));
        for (int i = 1; i <= steps; ++i)
            if (!reach(before + gap * i / steps)) return unmet();
        return Ghost{poseOf(moved_), before, task_.number(poseOf(moved_))};
    }

private:
    static Error unmet() { return Error{ErrorCode::NotFound, msg("ghost.no-pose")}; }

    JointPlaces poseOf(const Eigen::VectorXd& moved) const {
        JointPlaces pose = task_.joints;
        for (std::size_t i = 0; i < freedoms_.size(); ++i) {
            const double by = moved(static_cast<Eigen::Index>(i));
            ImagePoint& p = pose[freedoms_[i].joint];
            p = {p.x + by * freedoms_[i].along.x, p.y + by * freedoms_[i].along.y};
        }
        return pose;
    }

    /// What is off: the number first, then what each bond keeps, in pixels.
    Eigen::VectorXd offAt(const JointPlaces& pose, double wanted) const {
        std::vector<double> off{task_.number(pose) - wanted};
        for (const Bond& bond : bonds_) {
            const ImagePoint now = pose.at(bond.b) - pose.at(bond.a),
                             was = task_.joints.at(bond.b) - task_.joints.at(bond.a);
            if (bond.directed) {
                off.push_back(now.x - was.x);
                off.push_back(now.y - was.y);
            } else {
                off.push_back(length(now) - length(was));
            }
        }
        return Eigen::Map<Eigen::VectorXd>(off.data(), static_cast<Eigen::Index>(off.size()));
    }

    Eigen::MatrixXd slopes(const Eigen::VectorXd& moved, double wanted) const {
        constexpr double kStepPx = 0.05;
        Eigen::MatrixXd j(offAt(poseOf(moved), wanted).size(), moved.size());
        Eigen::VectorXd at = moved;
        for (Eigen::Index i = 0; i < moved.size(); ++i) {
            at(i) = moved(i) + kStepPx;
            const Eigen::VectorXd up = offAt(poseOf(at), wanted);
            at(i) = moved(i) - kStepPx;
            j.col(i) = (up - offAt(poseOf(at), wanted)) / (2 * kStepPx);
            at(i) = moved(i);
        }
        return j;
    }

    /// Least movement from the clicked pose to one that has the number; each pass makes the bonds linear
    /// anew.
    bool reach(double wanted) {
        constexpr int kMostPasses = 40, kWholeSteps = 8; // then half steps: short limbs swing about
        constexpr double kNumberTolerance = 0.02, kLengthTolerancePx = 0.05;
        for (int pass = 0; pass < kMostPasses; ++pass) {
            const Eigen::VectorXd off = offAt(poseOf(moved_), wanted);
            if (!off.allFinite()) return false;
            if (std::abs(off(0)) < kNumberTolerance &&
                off.tail(off.size() - 1).lpNorm<Eigen::Infinity>() < kLengthTolerancePx && pass > 0)
                return true;
            const Eigen::MatrixXd j = slopes(moved_, wanted);
            if (!j.allFinite()) return false;
            const Eigen::VectorXd next = j.completeOrthogonalDecomposition().solve(j * moved_ - off);
            moved_ = pass < kWholeSteps ? next : (0.5 * (moved_ + next)).eval();
        }
        return false;
    }

    const GhostTask& task_;
    std::vector<Bond> bonds_;
    std::vector<Freedom> freedoms_;
    Eigen::VectorXd moved_;
};

} // namespace

std::vector<std::pair<Landmark, Landmark>> limbsOf(const JointPlaces& pose) {
    std::vector<std::pair<Landmark, Landmark>> limbs;
    for (const auto& chain : kChains) {
        std::optional<Landmark> last;
        for (const Landmark joint : chain) {
            if (!pose.contains(joint)) continue;
            if (last) limbs.emplace_back(*last, joint);
            last = joint;
        }
    }
    return limbs;
}

void setContacts(GhostTask& task, Moment moment) {
    task.standing = {L::Rubber, L::Ground};
    switch (moment) {
    case Moment::Set:
        task.standing.insert(kLeadFoot.begin(), kLeadFoot.end());
        [[fallthrough]];
    case Moment::LiftTop:
    case Moment::HandBreak:
    case Moment::Load:
        task.standing.insert(kBackFoot.begin(), kBackFoot.end());
        return;
    case Moment::FootTouch:
    case Moment::Plant:
        task.standing.insert(kBackFoot.begin(), kBackFoot.end());
        task.sliding = {kLeadFoot.begin(), kLeadFoot.end()};
        return;
    case Moment::Layback:
    case Moment::Release:
        task.standing.insert(kLeadFoot.begin(), kLeadFoot.end());
        task.standing.insert(L::BackToe);
        return;
    case Moment::Finish:
        task.standing.insert(kLeadFoot.begin(), kLeadFoot.end());
        return;
    default:
        task.standing.insert(L::BackToe);
    }
}

Result<Ghost> solveGhost(const GhostTask& task) {
    return Solver(task).solve();
}

} // namespace jg
