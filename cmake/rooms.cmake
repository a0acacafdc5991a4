# SPDX-License-Identifier: GPL-3.0-or-later
# One static library a room. Our own code is compiled with warnings as errors.
add_library(jg_flags INTERFACE)
target_compile_options(jg_flags INTERFACE -Wall -Wextra -Wconversion -Werror -Wno-sign-conversion
                       -Wno-maybe-uninitialized) # false alarms of GCC 12 on optional and string
target_include_directories(jg_flags INTERFACE ${CMAKE_SOURCE_DIR}/src)
target_compile_definitions(jg_flags INTERFACE JG_VERSION="${PROJECT_VERSION}" QT_NO_KEYWORDS QT_NO_CAST_TO_ASCII)
# Hardened as Debian's packages are; tools/check_hardening.py looks at what came out. The compiler makes PIE itself.
if(NOT JG_SANITIZE)
  target_compile_options(jg_flags INTERFACE -fstack-protector-strong -fstack-clash-protection -Wformat -Werror=format-security
                         $<$<CONFIG:Release>:-U_FORTIFY_SOURCE -D_FORTIFY_SOURCE=2>)
  target_link_options(jg_flags INTERFACE -Wl,-z,relro -Wl,-z,now)
  if(CMAKE_SYSTEM_PROCESSOR STREQUAL "x86_64")
    target_compile_options(jg_flags INTERFACE -fcf-protection)
  endif()
endif()
if(JG_SANITIZE)
  target_compile_options(jg_flags INTERFACE -fsanitize=${JG_SANITIZE} -fno-sanitize-recover=all -fno-omit-frame-pointer)
  target_link_options(jg_flags INTERFACE -fsanitize=${JG_SANITIZE})
endif()

# Files are compiled many at a time: what they include is read once for all of them. Who changes one file after the
# other waits less with -DJG_TOGETHER=6, and 0 compiles each by itself.
set(JG_TOGETHER 16 CACHE STRING "how many files of a room are compiled together; 0 = each by itself")
function(jg_together target)
  if(JG_TOGETHER)
    set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_BATCH_SIZE ${JG_TOGETHER})
  endif()
endfunction()

# jg_room(folder LINK targets... [MOC] [ALONE] [CALM]); demo/films is jg_demo_films. CALM: nothing in it is awaited for
# long, so it is compiled with -O1, which takes little more than half the time.
function(jg_room folder)
  cmake_parse_arguments(R "MOC;ALONE;CALM" "" "LINK" ${ARGN})
  string(REPLACE "/" "_" name ${folder})
  file(GLOB_RECURSE sources CONFIGURE_DEPENDS ${CMAKE_CURRENT_SOURCE_DIR}/${folder}/*.cpp ${CMAKE_CURRENT_SOURCE_DIR}/${folder}/*.h)
  add_library(jg_${name} STATIC ${sources})
  target_link_libraries(jg_${name} PUBLIC jg_flags ${R_LINK})
  if(NOT R_ALONE)
    jg_together(jg_${name})
  endif()
  if(R_MOC)
    set_target_properties(jg_${name} PROPERTIES AUTOMOC ON)
  endif()
  if(R_CALM AND NOT JG_SANITIZE)
    target_compile_options(jg_${name} PRIVATE $<$<CONFIG:Release>:-O1>)
  endif()
endfunction()
