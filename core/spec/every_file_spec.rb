# frozen_string_literal: true

require "spec_helper"

# Where each file of the core is proved: by a spec of its name, or by one that is named here. Families
# (encodings, formats, steps and the like) are proved by a spec that goes through all that register.
RSpec.describe "Every file of the core" do
  by = {
    "area/gaussian_spec" => %w[area area/*],
    "calibration/calibration_spec" => %w[calibration/{correction,coupling,diagram,judgement,loaded,model,page,patches,reach,reading,report,response,settings,target,trend}],
    "calibration/session_spec" => %w[calibration/{clock,line,settling,stand_in} calibration/{line,stand_in}/*],
    "colour/reference_spec" => %w[colour colour/{aces,adaptation,adx,conversion,dcdm,encodings,encoding_curve,gamut_compression,gamut_limit,hlg_display,primaries,rendering,renderings,transfer,white} colour/{encodings,renderings,transfer}/*],
    "colour/aces/parts_spec" => %w[colour/aces/*],
    "colour/matrices_spec" => %w[colour/matrix3],
    "colour/encoding_spec" => %w[colour/registry colour/signal_range],
    "colour/odd_values_spec" => %w[colour/piecewise],
    "colour/own_encodings_spec" => %w[colour/encoding_file],
    "command_line/command_line_spec" => %w[command_line/*],
    "cut/changes_spec" => %w[cut/changes/*],
    "cut/cut_spec" => %w[cut/{edl,timecode,timeline,wipe,written}],
    "cut/list_spec" => %w[cut/edl_reading cut/notch],
    "cut/open_timeline_spec" => %w[cut/open_timeline_{reading,values}],
    "cut/transition_spec" => %w[cut/manner cut/mix_measure deliver/mixing],
    "deliver/deliver_spec" => %w[deliver/{beyond,bulk,burn_in,colour_tags,dither,exr_files,findings,fit,light_levels,media_hash_list,naming,noise_picture,pass,presets,programme,report,sequence_writer,still,video_writer}],
    "deliver/straight_spec" => %w[deliver/straight grade/coming media/half_planes],
    "deliver/formats_spec" => %w[deliver/format deliver/{sequence,video}_format deliver/formats/* format_error],
    "film_spec" => %w[film/*],
    "fuzz_spec" => %w[error checks media_error parameter_error shape_error unknown_id_error],
    "grade/keys_spec" => %w[grade/{course,earlier_keys,use}],
    "grade/plan_spec" => %w[altered grade grade/{active_area,entry,moment,origin,place,recipe,removed,section,view,window} grade/section/*],
    "grade/screen_spec" => %w[grade/output grade/roll_off],
    "grade/live_spec" => %w[grade/ladder grade/ladder/*],
    "grade/acting_spec" => %w[grade/added],
    "grade/spans_spec" => %w[grade/span],
    "lut/clf_spec" => %w[lut/clf/* lut/process_list],
    "lut/lut_spec" => %w[lut/*],
    "match/proposal_spec" => %w[match match/*],
    "matte/keys_spec" => %w[matte matte/{axes,contributor,hull,key,luminance,plane,ring,samples,seen,sight}],
    "matte/shapes_spec" => %w[outline matte/{composite,ellipse,gradient,outline,part,place,placed}],
    "matte/links_spec" => %w[matte/{clip,elsewhere,ends,linked}],
    "matte/refinements_spec" => %w[matte/refinement matte/refinements/*],
    "media/reading_spec" => %w[media media/{assignment,codes,command,facts,frame_facts,missing_frame,outflow,paced,probe,reader,run_frames,running,sequence,slated,surrounded,timed_pipe,video_frames}],
    "media/exr_reading_spec" => %w[media/exr_header media/half media/integers],
    "media/frame_index_spec" => %w[media/index_reading],
    "media/stills_spec" => %w[media/png media/png_text media/plain_png media/png_rows],
    "noise_spec" => %w[noise/*],
    "pointwise/chain_spec" => %w[pointwise pointwise/*],
    "rendition/renditions_spec" => %w[rendition rendition/*],
    "scopes/scopes_spec" => %w[region scopes/*],
    "steps/area_steps_spec" => %w[steps/{average,bloom,grain,halation,sharpen,soften}],
    "steps/balance_spec" => %w[steps/balance/*],
    "steps/curves_spec" => %w[steps/curves/*],
    "steps/step_spec" => %w[declared declared/* steps steps/{dyes,emulsion,smooth_banding} steps/dyes/*],
    "deliver/check_spec" => %w[markup],
    "track/track_spec" => %w[track/*]
  }
  lib = File.expand_path("../lib/mordant", __dir__)
  specs = File.join(__dir__, "mordant")
  files = Dir.glob("**/*.rb", base: lib).map { |path| path.delete_suffix(".rb") }

  it "has a spec of its name, or is named here with one that is there" do
    own = Dir.glob("**/*_spec.rb", base: specs).map { |path| File.basename(path, "_spec.rb") }
    named = by.values.flatten
    left = files.reject { |file| own.include?(File.basename(file)) || named.any? { |glob| File.fnmatch(glob, file, File::FNM_PATHNAME | File::FNM_EXTGLOB) } }
    expect(left).to eq([])
    expect(by.keys.reject { |spec| File.file?(File.join(specs, "#{spec}.rb")) }).to eq([])
  end

  it "names nothing that is not there any more" do
    gone = by.values.flatten.reject { |glob| files.any? { |file| File.fnmatch(glob, file, File::FNM_PATHNAME | File::FNM_EXTGLOB) } }
    expect(gone).to eq([])
  end
end
