@echo off
rem Starts Joiner on Windows. Builds it first if there is no build yet; run "joiner.cmd rebuild" after a change.
rem Written after the shell launcher beside it and not yet tried on a Windows machine.
setlocal EnableDelayedExpansion
set "HOME_DIR=%~dp0"
if "%HOME_DIR:~-1%"=="\" set "HOME_DIR=%HOME_DIR:~0,-1%"

if not defined JAVA_HOME (
  for /d %%D in ("%ProgramFiles%\Java\jdk-*" "%ProgramFiles%\Eclipse Adoptium\jdk-*") do (
    if exist "%%~D\bin\javac.exe" set "JAVA_HOME=%%~D"
  )
)
if not defined JAVA_HOME (
  echo joiner: a JDK 25 or newer is needed; install one and set JAVA_HOME to it 1>&2
  exit /b 2
)
"%JAVA_HOME%\bin\java.exe" -version 2>&1 | findstr /r /c:"version \"2[5-9]" /c:"version \"[3-9][0-9]" > nul
if errorlevel 1 (
  echo joiner: %JAVA_HOME% is older than JDK 25; set JAVA_HOME to a newer one 1>&2
  exit /b 2
)

if /i "%~1"=="rebuild" del /q "%HOME_DIR%\target\built" 2> nul
if not exist "%HOME_DIR%\target\built" (
  where mvn > nul 2> nul || (
    echo joiner: Maven ^(mvn^) is needed to build Joiner and was not found; install it 1>&2
    exit /b 2
  )
  echo joiner: building; the libraries are fetched the first time, which takes some minutes 1>&2
  if not exist "%HOME_DIR%\target" mkdir "%HOME_DIR%\target"
  pushd "%HOME_DIR%"
  call mvn -q -B -DskipTests -Dspotless.check.skip=true -pl core,database,map,cli,desktop package > "%HOME_DIR%\target\build.log" 2>&1
  if errorlevel 1 (
    popd
    echo joiner: the build failed; see %HOME_DIR%\target\build.log 1>&2
    exit /b 2
  )
  popd
  type nul > "%HOME_DIR%\target\built"
)
if /i "%~1"=="rebuild" exit /b 0

set WINDOWED=0
if /i "%~1"=="open" set WINDOWED=1
if /i "%~1"=="demo" set WINDOWED=1
if %WINDOWED%==1 (
  "%JAVA_HOME%\bin\java.exe" -XX:+UseSerialGC -Dfile.encoding=UTF-8 "-Djoiner.home=%HOME_DIR%" --module-path "%HOME_DIR%\desktop\target\javafx" --add-modules javafx.controls --enable-native-access=javafx.graphics,ALL-UNNAMED -cp "%HOME_DIR%\desktop\target\*;%HOME_DIR%\desktop\target\lib\*" joiner.desktop.Main %*
) else (
  "%JAVA_HOME%\bin\java.exe" -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -Dfile.encoding=UTF-8 "-Djoiner.home=%HOME_DIR%" --enable-native-access=ALL-UNNAMED -cp "%HOME_DIR%\cli\target\*;%HOME_DIR%\cli\target\lib\*" joiner.cli.Main %*
)
exit /b %ERRORLEVEL%
