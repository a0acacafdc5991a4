# SPDX-License-Identifier: GPL-3.0-or-later
# Debian's small OpenCV packages bring neither a CMake configuration nor a pkg-config file.
find_path(OPENCV_HEADERS opencv2/core.hpp PATH_SUFFIXES opencv4)
foreach(part core imgproc video)
  find_library(OPENCV_${part} opencv_${part})
endforeach()
include(FindPackageHandleStandardArgs)
find_package_handle_standard_args(OpenCVSmall REQUIRED_VARS OPENCV_HEADERS OPENCV_core OPENCV_imgproc OPENCV_video)
if(OpenCVSmall_FOUND AND NOT TARGET opencv_small)
  add_library(opencv_small INTERFACE)
  target_include_directories(opencv_small SYSTEM INTERFACE ${OPENCV_HEADERS})
  target_link_libraries(opencv_small INTERFACE ${OPENCV_video} ${OPENCV_imgproc} ${OPENCV_core})
endif()
