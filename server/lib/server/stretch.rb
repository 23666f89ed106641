# frozen_string_literal: true

module Server
  # What one file or sequence of an order holds: the whole cut, or a shot by itself with
  # handles. Its frames are counted from 0.
  class Stretch
    attr_reader :cut, :shot

    # @param order [Order]
    # @param shot_id [Integer, nil] nil: the whole cut
    def initialize(order, shot_id)
      @order, @cut = order, order.cut
      @shot = shot_id && @cut.shot(shot_id)
    end

    # @return [Integer] frames
    def length = timeline.shots.last.record_out

    # @return [Integer] frames of it before the shot's first one
    def handle = shot ? before : 0

    # @return [Mordant::Cut::Timecode] of the first frame: of the source for a shot, of the cut else
    def start = shot ? source_timecode(0) : cut.timecode(0)

    def reel = shot&.clip&.reel

    # @return [Integer, nil] number of the file that its first frame is; nil of what is no shot of a run
    def first_number = shot&.clip&.first_number&.+(timeline.shots.last.source_in)

    # @return [Mordant::Cut::Timeline]
    def timeline
      return cut.timeline unless shot

      @timeline ||= Mordant::Cut::Timeline.new([goes, with_handles].compact)
    end

    # @param sheets [Array<Mordant::Deliver::Sheet>] whose grades are wanted
    # @param width [Integer, nil] of the pictures; nil: the project's
    # @return [Mordant::Deliver::Programme]
    def programme(sheets, width: nil)
      cut.loaded_shots unless shot
      variants = sheets.map(&:variant).uniq
      sources = Hash.new { |known, id| known[id] = source(cut.shot(id), variants) }
      project = cut.project
      height = width ? (width * project.height.fdiv(project.width)).round : project.height
      Mordant::Deliver::Programme.new(timeline:, sources:, width: width || project.width, height:, mixing: project.transitions)
    end

    # @param member [Shot]
    # @return [Mordant::Deliver::Programme::Source] with the grades of variants
    def source(member, variants)
      others = variants.to_h { |variant| [variant, shifted(member, cut.source_of(member) { member.delivered(*variant) })] }
      Mordant::Deliver::Programme::Source.new(reader: member.clip.reader, others:)
    end

    # @param view [Mordant::Grade::View]
    # @param frame [Integer] of the stretch
    # @return [Mordant::Grade::View] as it is there
    def bound(view, frame)
      return view unless view.aim

      view.bound(timeline.layers(frame).map { |layer| cut.shot(layer.shot.key).then { |member| cut.renditions.mapping(member, view.aim, frame - layer.shot.record_in + first_of(member)) } })
    end

    # @return [Hash{String => Array<String>}] stamps of the clips it shows, by path
    # @raise [Mordant::MediaError] of one that is gone
    def sources = shown.map(&:clip).uniq.to_h { |clip| [clip.path, clip.stamps] }

    # @param paths [Array<String>] of clips
    # @return [Array<Integer>] frames that show one of them
    def frames_of(paths)
      keys = shown.select { |member| paths.include?(member.clip.path) }.map(&:id)
      (0...length).select { |frame| timeline.layers(frame).any? { |layer| keys.include?(layer.shot.key) } }
    end

    # @param frame [Integer] of the stretch
    # @return [Array(Mordant::Media::FrameFacts, Hash)] what a file says of it, and tokens of burn-ins
    def describe(frame, name:, written:)
      member, source_frame = at(frame)
      clip = member.clip
      timecode = start + frame
      facts = Mordant::Media::FrameFacts.new(rate: cut.project.rate, timecode:, name:, source: clip.run? ? File.basename(clip.run.file(clip.first_number + source_frame)) : File.basename(clip.path), reel: clip.reel, project: cut.project.name, number: frame, count: length, written:)
      record = shot ? shot.record_in - before + frame : frame
      [facts, {timecode: cut.timecode(record).to_s, source_timecode: clip.timecode(source_frame).to_s, frame: (record + 1).to_s, source_frame: (clip.run? ? clip.first_number + source_frame : source_frame + 1).to_s, shot: member.name,
               scene: member.scene, clip: clip.stem, path: clip.path, reel: clip.reel.to_s, project: cut.project.name, cut: cut.name, date: written.strftime("%Y-%m-%d")}]
    end

    # @param frame [Integer]
    # @return [Array(String, String)] shot and timecode, for a report
    def place(frame) = [at(frame).first.name, (start + frame).to_s]

    private

    # @return [Array<Shot>] whose frames it is made of
    def shown = shot ? timeline.shots.map { |one| cut.shot(one.key) } : cut.loaded_shots

    def at(frame)
      layer = timeline.layers(frame).last
      [cut.shot(layer.shot.key), layer.source_frame]
    end

    # Keys count from the shot's first frame, not from that of its handle; those of the shot that goes from its own.
    def shifted(member, source)
      return source unless shot

      source.tap { source.start = first_of(member) }
    end

    # @return [Integer] the frame of a member that the stretch shows first
    def first_of(member)
      return 0 unless shot

      (member == shot) ? -before : member.length - 1
    end

    def with_handles
      source_in, phase = own.place_after(-before)
      own.with(record_in: 0, source_in:, phase:, length: before + shot.length + after, **(goes ? {} : {dissolve: 0, wipe: nil}))
    end

    # The shot that a baked transition begins with: its last frame stands before the stretch.
    def goes
      return unless @order.baked && shot.dissolve.positive?

      @goes ||= cut.loaded_shots[cut.positions.fetch(shot.id) - 1].place.then do |place|
        source_in, phase = place.place_after(place.length - 1)
        place.with(record_in: -1, source_in:, phase:, length: 1, dissolve: 0, wipe: nil)
      end
    end

    def own = @own ||= shot.place

    def before = (shot && !goes) ? [@order.handles, own.head].min : 0

    def after = [@order.handles, own.tail].min

    # Of what runs at another speed, of its first frame, and counted on from there.
    def source_timecode(frame) = (shot.clip.timecode(timeline.shots.last.source_in) + frame).at(cut.project.rate)
  end
end
