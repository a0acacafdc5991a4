// SPDX-License-Identifier: GPL-3.0-or-later
#include "film/median_picture.h"

#include <algorithm>

namespace jg {

cv::Mat medianPicture(const std::vector<cv::Mat>& pictures) {
    cv::Mat median(pictures.front().size(), CV_8U);
    std::vector<std::uint8_t> values(pictures.size());
    for (int y = 0; y < median.rows; ++y)
        for (int x = 0; x < median.cols; ++x) {
            for (std::size_t i = 0; i < pictures.size(); ++i) values[i] = pictures[i].at<std::uint8_t>(y, x);
            const auto middle = values.begin() + std::ssize(values) / 2;
            std::nth_element(values.begin(), middle, values.end());
            median.at<std::uint8_t>(y, x) = *middle;
        }
    return median;
}

} // namespace jg
